import { useState } from 'react';
import { Input } from '../../ui/input';
import { Button, Page } from '../../ui/pieces';
import { Body, Title } from '../../ui/text';
import type { StepProps } from './step';
import { WhoIs } from './parts';
import { useSay } from './say';
import { Wrong } from './wrong';

export function DeclineStep({ signing, view, onBack }: StepProps) {
  const t = useSay();
  const [reason, setReason] = useState('');
  return (
    <Page max={560}>
      <WhoIs view={view} />
      <Title>{t('sign.decline.title')}</Title>
      <Body>{t('sign.decline.body', { packetName: view.packetName, firmName: view.firmName })}</Body>
      <Input
        label={t('sign.decline.why')}
        value={reason}
        onChangeText={setReason}
        multiline
        numberOfLines={4}
        maxLength={600}
        testID="reason"
      />
      {signing.decline.isError ? <Wrong error={signing.decline.error} /> : null}
      <Button
        large
        kind="stop"
        busy={signing.decline.isPending}
        onPress={() => signing.decline.mutate(reason, { onSuccess: onBack })}
        testID="decline-now"
      >
        {t('sign.decline')}
      </Button>
      <Button large onPress={onBack}>
        {t('sign.go_back')}
      </Button>
    </Page>
  );
}
