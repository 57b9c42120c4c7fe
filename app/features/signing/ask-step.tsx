/** A question to the sender, with the answers received. */
import { useRef, useState } from 'react';
import type { SigningView } from '@gatepath/contract';
import { newId } from '../../api/client';
import { Input } from '../../ui/input';
import { Button, Card, Page } from '../../ui/pieces';
import { Body, Small, Strong, Title } from '../../ui/text';
import type { StepProps } from './step';
import { WhoIs } from './parts';
import { useSay } from './say';
import { Wrong } from './wrong';

export function AskStep({ signing, view, onBack }: StepProps) {
  const t = useSay();
  const [text, setText] = useState('');
  // One id until it has arrived: sent twice, it is one question.
  const id = useRef(newId());
  const send = () =>
    signing.ask.mutate(
      { actId: id.current, text },
      {
        onSuccess: () => {
          id.current = newId();
          setText('');
        },
      },
    );
  return (
    <Page max={560}>
      <WhoIs view={view} />
      <Title>{t('sign.ask.title', { firmName: view.firmName })}</Title>
      <Body>{t('sign.ask.body', { firmName: view.firmName })}</Body>
      <Questions view={view} />
      <Input
        label={t('sign.ask.label')}
        value={text}
        onChangeText={setText}
        multiline
        numberOfLines={4}
        maxLength={2000}
        testID="question"
      />
      {signing.ask.isError ? <Wrong error={signing.ask.error} /> : null}
      <Button
        large
        kind="main"
        busy={signing.ask.isPending}
        disabled={!text.trim()}
        onPress={send}
        testID="send-question"
      >
        {t('sign.ask.send')}
      </Button>
      <Button large onPress={onBack} testID="back">
        {t('sign.go_back')}
      </Button>
    </Page>
  );
}

/** Questions and answers, oldest first. */
export function Questions({ view }: { view: SigningView }) {
  const t = useSay();
  return (
    <>
      {view.questions.map((q) => (
        <Card key={q.id} testID="question-card">
          <Small>{t('sign.ask.yours')}</Small>
          <Strong>{q.text}</Strong>
          {q.answer ? (
            <>
              <Small>{t('sign.ask.answered')}</Small>
              <Body testID="answer">{q.answer.text}</Body>
            </>
          ) : (
            <Small>{t('sign.ask.waiting', { firmName: view.firmName })}</Small>
          )}
        </Card>
      ))}
    </>
  );
}
