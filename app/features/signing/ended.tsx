/** The screens after one's own part, and of every end. */
import { holdsGate, receives } from '@gatepath/core/filling';
import { View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import { firstName } from '@gatepath/core/text';
import { listIn, type Words } from '@gatepath/core/words';
import { usePalette } from '../../ui/hooks';
import { Button, Page } from '../../ui/pieces';
import { Small, Title } from '../../ui/text';
import { AskForPage } from './ask-for-page';
import { Questions } from './ask-step';
import type { StepProps } from './step';
import { Lead, Downloads, WhoIs } from './parts';
import { useSay, useWords, type Say } from './say';
import { Stack } from '../../ui/layout';

export function Ended(props: StepProps) {
  // "Thank you" is shown only once the server has everything: closing the page now must lose nothing.
  return props.signing.waiting.length ? <Sending view={props.view} /> : <AtEnd {...props} />;
}

/** Everything is done on the page, and not all of it was sent yet. */
function Sending({ view }: { view: SigningView }) {
  const t = useSay();
  return (
    <Page max={560}>
      <WhoIs view={view} over />
      <Stack role="status" gap={16}>
        <Title testID="sending">{t('sign.offline.sending')}</Title>
        <Lead>{t('sign.offline.keep_open')}</Lead>
      </Stack>
    </Page>
  );
}

function AtEnd({ token, view, onSide }: StepProps) {
  const p = usePalette();
  const t = useSay();
  const words = useWords();
  const sealed = view.documents.length > 0 && view.documents.every((d) => d.sealed);
  const [title, text] = endOf(t, words, view, sealed);
  // Reading is all there is to do.
  const reads = receives(view.me);
  return (
    <Page max={560}>
      <WhoIs view={view} over />
      <View
        style={{ width: 56, height: 6, borderRadius: 3, backgroundColor: view.status === 'declined' ? p.wine : p.moss }}
      />
      <Title testID="ended">{title}</Title>
      <Lead>{text}</Lead>
      {reads ? (
        <Button large kind="main" onPress={() => onSide('read')} testID="read-it">
          {t('sign.end.read_here')}
        </Button>
      ) : null}
      <Downloads token={token} view={view}>
        {reads ? null : (
          <Button kind="quiet" onPress={() => onSide('read')} fit>
            {t('sign.end.read_here')}
          </Button>
        )}
      </Downloads>
      <Questions view={view} />
      {view.status === 'at_gate' && holdsGate(view.me) && view.mine !== 'waiting' ? (
        <Button kind="quiet" onPress={() => onSide('ask')} fit testID="ask">
          {t('sign.ask')}
        </Button>
      ) : null}
      {view.hostName ? null : <AskForPage token={token} />}
      <Small>{t('sign.end.close')}</Small>
    </Page>
  );
}

/** Returns a client's status at the end, as a title and a sentence. */
function endOf(t: Say, words: Words, view: SigningView, sealed: boolean): [string, string] {
  const { firmName } = view;
  if (receives(view.me) && view.status !== 'declined')
    return [t('sign.end.delivered'), t('sign.end.delivered_body', { firmName })];
  if (view.status === 'executed') return [t('sign.end.everyone'), t(sealed ? 'sign.end.sealed' : 'sign.end.sealing')];
  if (view.status === 'declined')
    return view.mine === 'declined'
      ? [t('sign.end.declined'), t('sign.end.declined_body', { firmName })]
      : [t('sign.end.ended'), t('sign.end.ended_body')];
  if (view.mine === 'excused') return [t('sign.end.not_needed'), t('sign.end.not_needed_body')];
  if (view.mine === 'done') {
    const waiting = view.others.filter((o) => !o.done).map((o) => o.name);
    return [
      t('sign.end.thanks', { first: firstName(view.me.name) }),
      waiting.length ? t('sign.end.next', { n: waiting.length, names: listIn(words, waiting) }) : t('sign.end.done'),
    ];
  }
  if (view.mine === 'waiting' && holdsGate(view.me)) return [t('sign.end.read_along'), t('sign.end.read_along_body')];
  if (!holdsGate(view.me)) return [t('sign.end.copy'), t('sign.end.copy_body')];
  return [t('sign.end.nothing'), t('mail.in_touch', { firmName })];
}
