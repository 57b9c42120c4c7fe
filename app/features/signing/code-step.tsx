/** The second step: a code told in person, or one sent by email or phone. */
import { useState } from 'react';
import type { SigningView } from '@gatepath/contract';
import { CODE_MINUTES } from '@gatepath/contract/limits';
import { firstName } from '@gatepath/core/text';
import { Input } from '../../ui/input';
import { Button, Note, Page } from '../../ui/pieces';
import { Title } from '../../ui/text';
import { Lead, Languages, WhoIs } from './parts';
import { useSay } from './say';
import type { Signing } from './use-signing';
import { Wrong } from './wrong';

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function CodeStep({ signing, view }: { signing: Signing; view: SigningView }) {
  const t = useSay();
  const [code, setCode] = useState('');
  const step = view.step!;
  const sends = step.kind !== 'code';
  if (step.locked)
    return (
      <Page max={560}>
        <WhoIs view={view} over />
        <Note tone="stop" title={t('sign.step.locked', { firmName: view.firmName })} testID="locked" />
      </Page>
    );
  const give = () => signing.giveCode.mutate(code, { onError: () => setCode('') });
  const wanted = step.sent || !sends;
  return (
    <Page max={560}>
      <WhoIs view={view} over />
      <Languages signing={signing} view={view} />
      <Title>{t('sign.step.title', { first: firstName(view.me.name) })}</Title>
      <Lead>
        {step.kind === 'code'
          ? t('sign.step.code', { firmName: view.firmName })
          : step.sent
            ? t(step.kind === 'email' ? 'sign.step.sent_email' : 'sign.step.sent_phone', { minutes: CODE_MINUTES })
            : t(step.kind === 'email' ? 'sign.step.email' : 'sign.step.phone')}
      </Lead>
      {wanted ? (
        <>
          <Input
            label={t('sign.step.label')}
            value={code}
            onChangeText={setCode}
            inputMode={sends ? 'numeric' : 'text'}
            autoComplete={sends ? 'one-time-code' : 'off'}
            maxLength={40}
            onSubmitEditing={give}
            testID="code"
          />
          {signing.giveCode.isError ? <Wrong error={signing.giveCode.error} /> : null}
          <Button
            large
            kind="main"
            busy={signing.giveCode.isPending}
            disabled={!code.trim()}
            onPress={give}
            testID="give-code"
          >
            {t('sign.go_on')}
          </Button>
        </>
      ) : null}
      {sends ? (
        <>
          {signing.sendCode.isError ? <Wrong error={signing.sendCode.error} /> : null}
          <Button
            large
            kind={step.sent ? 'quiet' : 'main'}
            busy={signing.sendCode.isPending}
            onPress={() => signing.sendCode.mutate()}
            testID="send-code"
          >
            {t(step.sent ? 'sign.step.again' : 'sign.step.send')}
          </Button>
        </>
      ) : null}
    </Page>
  );
}
