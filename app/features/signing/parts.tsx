/** Small parts that several steps of the ceremony share. */
import { filledHow, type Filled } from '@gatepath/core/filling';
import type { ReactNode } from 'react';
import { Linking, View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { firstName } from '@gatepath/core/text';
import { calendarDay, listIn, sideIn, type Words } from '@gatepath/core/words';
import { usePalette } from '../../ui/hooks';
import { Button, Card, Choice, Note } from '../../ui/pieces';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { Token } from '../../ui/token';
import { signingPlaces } from './places';
import { useSay, useWords, type Say } from './say';
import type { Signing } from './use-signing';
import { Wrong, wordsOfError } from './wrong';
import { itemAt } from '@gatepath/core/sure';
import { Row, Stack } from '../../ui/layout';

/** Who is signing, said clearly: two people may share one mailbox. */
export function WhoIs({ view, over, onNotMe }: { view: SigningView; over?: boolean; onNotMe?: () => void }) {
  const t = useSay();
  const words = useWords();
  const first = firstName(view.me.name);
  return (
    <Row gap={12} wrap>
      <Token name={view.me.name} ink={view.me.ink} size={42} />
      <View style={{ flex: 1, minWidth: 150 }}>
        <Strong style={{ fontSize: 19, lineHeight: 25 }}>{t(over ? 'sign.for' : 'sign.as', { first })}</Strong>
        <Small>{`${view.me.name}, ${sideIn(words, view.me)}`}</Small>
        {view.me.capacity ? <Small>{view.me.capacity}</Small> : null}
        {view.me.company ? <Small>{t('sign.for_company', { company: view.me.company })}</Small> : null}
      </View>
      {onNotMe ? (
        <Button kind="quiet" onPress={onNotMe} testID="not-me">
          {t('sign.not_me')}
        </Button>
      ) : null}
    </Row>
  );
}

/** The languages, each by its own name. */
export function Languages({ signing, view }: { signing: Signing; view: SigningView }) {
  const t = useSay();
  if (view.languages.length < 2) return null;
  return (
    <Stack gap={8}>
      <Choice
        wrap
        label={t('sign.language')}
        value={view.language}
        options={view.languages.map((l) => ({ value: l.tag, label: l.name }))}
        onChange={(language) => signing.setLanguage.mutate(language)}
      />
      {signing.setLanguage.isError ? <Wrong error={signing.setLanguage.error} /> : null}
    </Stack>
  );
}

/** Returns what is left by kind: "11 initials and 2 signatures". */
export function leftByKind(t: Say, words: Words, view: Pick<SigningView, 'marks'>): string {
  const left = signingPlaces(view).filter((x) => x.required && !x.done);
  const of = (is: (how: Filled) => boolean) => left.filter((x) => is(filledHow(itemAt(x.marks, 0).kind))).length;
  const initials = of((how) => how.by === 'hand' && how.as === 'initials');
  const signatures = of((how) => how.by === 'hand' && how.as === 'signature');
  const files = of((how) => how.by === 'file');
  const answers = left.length - initials - signatures - files;
  const parts = [
    initials ? t('sign.left.initials', { n: initials }) : '',
    signatures ? t('sign.left.signatures', { n: signatures }) : '',
    answers ? t('sign.left.answers', { n: answers }) : '',
    files ? t('sign.left.files', { n: files }) : '',
  ].filter(Boolean);
  return parts.length ? listIn(words, parts) : t('sign.left.nothing');
}

/** What the screen says while acts wait for the connection, or if one was refused. */
export function SendingBar({ signing }: { signing: Signing }) {
  const t = useSay();
  const p = usePalette();
  const waiting = signing.waiting.length;
  if (signing.refused || signing.aside.length)
    return (
      <View style={{ padding: 10, backgroundColor: p.paper }}>
        <Note
          tone="stop"
          title={t('sign.offline.aside', {
            n: signing.aside.length,
            why: signing.refused ? wordsOfError(t, signing.refused) : '',
          })}
          testID="refused"
          action={
            <Row align="stretch" wrap>
              <Button kind="quiet" onPress={signing.forgive}>
                {t('sign.go_on')}
              </Button>
              {signing.aside.length ? (
                <Button kind="quiet" onPress={signing.tryAside} testID="try-aside">
                  {t('sign.try_again')}
                </Button>
              ) : null}
            </Row>
          }
        />
      </View>
    );
  if (!signing.offline) return null;
  return (
    <View
      role="status"
      testID="offline"
      style={{ backgroundColor: p.ochre, paddingHorizontal: 14, paddingVertical: 8 }}
    >
      <Body style={{ color: p.onBrick }}>
        {`${t('sign.offline')}${waiting ? ` ${t('sign.offline.waiting', { n: waiting })}` : ''}`}
      </Body>
    </View>
  );
}

/** Returns the last day for signing in the client's language; null if there is none. */
export function useLastDay(view: SigningView): string | null {
  const words = useWords();
  return view.lastDay && calendarDay(words, view.lastDay);
}

/** The way back from a screen of pages, always within reach. */
export function BackBar({ onBack }: { onBack: () => void }) {
  const p = usePalette();
  const t = useSay();
  return (
    <View style={{ padding: 12, backgroundColor: p.sheet, borderTopWidth: 1, borderColor: p.rule }}>
      <Button large kind="main" onPress={onBack} testID="back">
        {t('sign.back')}
      </Button>
    </View>
  );
}

/** The documents to download: sealed, signed so far, or as sent. */
export function Downloads({ token, view, children }: { token: string; view: SigningView; children?: ReactNode }) {
  const t = useSay();
  const sealed = view.documents.length > 0 && view.documents.every((d) => d.sealed);
  return (
    <Card>
      <Heading>
        {t(sealed ? 'sign.end.sealed_copies' : view.somethingSigned ? 'sign.download' : 'sign.end.documents')}
      </Heading>
      {view.documents.map((d) => (
        <Button
          key={d.id}
          icon="download"
          label={t('sign.download.document', { name: d.name })}
          onPress={() => void Linking.openURL(urlOf('signingFile', { token, documentId: d.id }))}
          testID="download"
        >
          {d.name}
        </Button>
      ))}
      {children}
    </Card>
  );
}

/** Words below a heading, a little larger than usual for clients of every age. */
export function Lead({ children }: { children: string }) {
  return <Body style={{ fontSize: 18, lineHeight: 26 }}>{children}</Body>;
}
