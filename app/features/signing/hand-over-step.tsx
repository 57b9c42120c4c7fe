/** Handing over to another person, if the sender permits it. */
import { useState } from 'react';
import { Input } from '../../ui/input';
import { Button, Page } from '../../ui/pieces';
import { Body, Title } from '../../ui/text';
import type { StepProps } from './step';
import { WhoIs } from './parts';
import { useSay } from './say';
import { Wrong } from './wrong';
import { Stack } from '../../ui/layout';

export function HandOverStep({ signing, view, onBack }: StepProps) {
  const t = useSay();
  const [to, setTo] = useState({ name: '', email: '', phone: '', reason: '' });
  const field = (key: keyof typeof to, label: string, more: object = {}) => (
    <Input
      label={label}
      value={to[key]}
      onChangeText={(v) => setTo({ ...to, [key]: v })}
      testID={`over-${key}`}
      {...more}
    />
  );
  return (
    <Page max={560}>
      <WhoIs view={view} />
      <Title>{t('sign.hand_over.title')}</Title>
      <Body>{t('sign.hand_over.body', { firmName: view.firmName })}</Body>
      {field('name', t('sign.hand_over.name'), { maxLength: 120 })}
      {field('email', t('sign.hand_over.email'), { inputMode: 'email', autoCapitalize: 'none' })}
      {field('phone', t('sign.hand_over.phone'), { inputMode: 'tel' })}
      {field('reason', t('sign.hand_over.why'), { multiline: true, numberOfLines: 3, maxLength: 600 })}
      {signing.handOver.isError ? <Wrong error={signing.handOver.error} /> : null}
      <Button
        large
        kind="main"
        busy={signing.handOver.isPending}
        onPress={() => signing.handOver.mutate({ ...to, phone: to.phone.trim() || null }, { onSuccess: onBack })}
        testID="over-now"
      >
        {t('sign.hand_over.do')}
      </Button>
      <Button large onPress={onBack}>
        {t('sign.go_back')}
      </Button>
    </Page>
  );
}

/** After that: nothing is left to do here. */
export function HandedOver({ to }: { to: string }) {
  const t = useSay();
  return (
    <Page max={560}>
      <Stack role="status" gap={12}>
        <Title testID="handed-over">{t('sign.handed_over.title', { to })}</Title>
        <Body>{t('sign.handed_over.body', { to })}</Body>
      </Stack>
    </Page>
  );
}
