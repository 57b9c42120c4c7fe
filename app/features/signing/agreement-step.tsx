/** Agreeing to sign electronically, before anything else. */
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { Switch } from '../../ui/switch';
import { Button, Card, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Title } from '../../ui/text';
import type { StepProps } from './step';
import { Lead, Languages, leftByKind, useLastDay, WhoIs } from './parts';
import { useSay, useWords } from './say';
import { Wrong } from './wrong';
import { elementOf } from '../../ui/web';
import { Stack } from '../../ui/layout';

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function AgreementStep({ signing, view, onSide }: StepProps) {
  const t = useSay();
  const words = useWords();
  const lastDay = useLastDay(view);
  const [ticked, setTicked] = useState(false);
  const [asked, setAsked] = useState(false);
  const box = useRef<View>(null);
  const pages = view.documents.reduce((n, d) => n + d.pages.length, 0);
  const work = view.marks.some((m) => !m.automatic && m.required && !m.done) ? leftByKind(t, words, view) : '';
  const goOn = () => {
    if (ticked) return signing.agree(view.agreementText.version);
    setAsked(true);
    elementOf(box)?.querySelector<HTMLElement>('[role="checkbox"]')?.focus();
  };
  return (
    <Page max={560}>
      <WhoIs view={view} onNotMe={() => onSide('not_me')} />
      <Languages signing={signing} view={view} />
      {view.hostName ? (
        <Note tone="plain" title={t('sign.host', { hostName: view.hostName, firmName: view.firmName })} />
      ) : null}
      <Stack gap={4}>
        <Small>{t('sign.from', { firmName: view.firmName, dealName: view.dealName })}</Small>
        <Title>{view.packetName}</Title>
      </Stack>
      {view.message ? (
        <Card>
          <Body>{view.message}</Body>
        </Card>
      ) : null}
      {view.note ? (
        <Card>
          <Small>{t('sign.note_for_you')}</Small>
          <Body>{view.note}</Body>
        </Card>
      ) : null}
      <Lead>
        {[
          t('sign.how_much', { documents: view.documents.length, pages }),
          work ? t('sign.work', { work }) : '',
          lastDay ? t('sign.until', { lastDay }) : '',
          t('sign.stop_any_time'),
        ]
          .filter(Boolean)
          .join(' ')}
      </Lead>
      <Button large onPress={() => onSide('read')} testID="read-first">
        {t('sign.read_first')}
      </Button>
      <Card>
        <Heading>{t('sign.agree.title')}</Heading>
        {view.agreementText.paragraphs.map((text, i) => (
          <Body key={i}>{text}</Body>
        ))}
        {signing.agreementCopy.isSuccess ? (
          <Note tone="good" title={t('sign.agree.copy_sent')} />
        ) : (
          <Button
            kind="quiet"
            busy={signing.agreementCopy.isPending}
            onPress={() => signing.agreementCopy.mutate()}
            fit
            testID="agreement-copy"
          >
            {t('sign.agree.send_copy')}
          </Button>
        )}
        {signing.agreementCopy.isError ? <Wrong error={signing.agreementCopy.error} /> : null}
        <View ref={box}>
          <Switch large on={ticked} label={t('sign.agree.tick')} onChange={setTicked} testID="agree-tick" />
        </View>
      </Card>
      {asked && !ticked ? <Note tone="warn" title={t('sign.agree.first')} testID="agree-first" /> : null}
      <Button large kind="main" onPress={goOn} testID="agree">
        {t('sign.go_on')}
      </Button>
      <Button kind="quiet" onPress={() => onSide('more')} testID="more">
        {t('sign.more.title')}
      </Button>
    </Page>
  );
}
