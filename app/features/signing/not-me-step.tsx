/** "That is not me": whose link it is, and what to do if it came to the wrong person. */
import { useRef } from 'react';
import { newId } from '../../api/client';
import { Button, Note, Page } from '../../ui/pieces';
import { Body, Title } from '../../ui/text';
import type { StepProps } from './step';
import { useSay } from './say';
import { Wrong } from './wrong';

export function NotMeStep({ signing, view, onBack }: StepProps) {
  const t = useSay();
  const id = useRef(newId());
  const { name } = view.me;
  return (
    <Page max={560}>
      <Title testID="not-me-title">{t('sign.not_me.title', { name })}</Title>
      <Body>{t('sign.not_me.body', { name })}</Body>
      <Body>{t('sign.not_me.wrong')}</Body>
      {signing.ask.isError ? <Wrong error={signing.ask.error} /> : null}
      {signing.ask.isSuccess ? (
        <Note tone="good" title={t('sign.ask.waiting', { firmName: view.firmName })} />
      ) : (
        <Button
          large
          busy={signing.ask.isPending}
          onPress={() => signing.ask.mutate({ actId: id.current, text: t('sign.not_me.told', { name }) })}
          testID="tell-sender"
        >
          {t('sign.not_me.tell')}
        </Button>
      )}
      <Button large kind="main" onPress={onBack} testID="back">
        {t('sign.go_back')}
      </Button>
    </Page>
  );
}
