/** The client's ceremony: one calm column, one thing at a time. */
import { approves } from '@gatepath/core/filling';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { ApiError, isRefused } from '../../api/client';
import { usePalette } from '../../ui/hooks';
import { Button, Note, Page } from '../../ui/pieces';
import { Body, Title } from '../../ui/text';
import { AgreementStep } from './agreement-step';
import { ApproveStep } from './approve-step';
import { AskStep } from './ask-step';
import { ChangedStep } from './changed-step';
import { CodeStep } from './code-step';
import { DeclineStep } from './decline-step';
import { Ended } from './ended';
import { RehearsedFiles } from './files';
import { HandOverStep } from './hand-over-step';
import { HandStep } from './hand-step';
import { MoreStep } from './more-step';
import { NotMeStep } from './not-me-step';
import { PagesStep } from './pages-step';
import { SendingBar } from './parts';
import { PlacesStep } from './places-step';
import { ReadAll } from './read-all';
import type { Aside, StepProps } from './step';
import { InLanguage, useLanguage, useSay } from './say';
import { useRehearsal } from './use-rehearsal';
import { useSigning, type Signing } from './use-signing';
import { wordsOfError } from './wrong';
import { itemAt } from '@gatepath/core/sure';

export function Ceremony({ token }: { token: string }) {
  return <Gone token={token} signing={useSigning(token)} />;
}

/** The same for a member who goes through a draft as one of its people will. */
export function Rehearsal({ packetId, partyId }: { packetId: string; partyId: string }) {
  const files = useMemo(
    () => ({
      page: (documentId: string, page: number) => urlOf('documentPage', { documentId, page }),
      picture: () => '',
    }),
    [],
  );
  return (
    <RehearsedFiles.Provider value={files}>
      <Gone token="" signing={useRehearsal(packetId, partyId)} />
    </RehearsedFiles.Provider>
  );
}

function Gone({ token, signing }: { token: string; signing: Signing }) {
  const words = useLanguage(signing.view?.language ?? browserLanguage());
  const p = usePalette();
  const { query, view } = signing;
  if (query.isPending || !words) return <Waiting />;
  // A link can end while the page is open: withdrawn, lapsed, handed over. A lost connection ends nothing.
  if (!view || isRefused(query.error))
    return (
      <InLanguage words={words}>
        <Unopened error={query.error} retry={() => void query.refetch()} />
      </InLanguage>
    );
  return (
    <InLanguage words={words}>
      <View style={{ flex: 1, backgroundColor: p.paper }}>
        <SendingBar signing={signing} />
        <View style={{ flex: 1 }}>
          <Steps token={token} signing={signing} view={view} />
        </View>
      </View>
    </InLanguage>
  );
}

/** The browser's own language, for what is said before it is known who comes. */
function browserLanguage(): string {
  return typeof navigator === 'undefined' ? 'en' : itemAt(navigator.language.split('-'), 0);
}

function Waiting() {
  const t = useSay();
  return (
    <View role="main" style={{ padding: 32 }}>
      <View role="status">
        <Body level={1}>{t('sign.loading')}</Body>
      </View>
    </View>
  );
}

function Unopened({ error, retry }: { error: Error | null; retry: () => void }) {
  const t = useSay();
  const code = error instanceof ApiError ? error.code : '';
  const title =
    code === 'lapsed'
      ? 'sign.end.lapsed'
      : code === 'not-your-turn'
        ? 'sign.not_yet'
        : code === 'taken-out'
          ? 'sign.end.nothing'
          : ('sign.cannot_open' as const);
  return (
    <Page max={560}>
      <Title>{t(title)}</Title>
      <Note
        tone="warn"
        title={wordsOfError(t, error)}
        testID="trouble"
        action={
          <Button kind="quiet" onPress={retry} style={{ alignSelf: 'flex-start' }}>
            {t('sign.try_again')}
          </Button>
        }
      />
    </Page>
  );
}

function Steps({ token, signing, view }: { token: string; signing: Signing; view: SigningView }) {
  const [side, setSide] = useState<Aside | null>(null);
  const [at, setAt] = useState<string | null>(null);
  const [told, setTold] = useState(false);
  const back = () => setSide(null);
  const props = { token, signing, view, onBack: back, onSide: setSide };
  if (view.step) return <CodeStep signing={signing} view={view} />;
  const aside = side && asideOf(side, props, (markId) => (setAt(markId), setSide(null)));
  if (aside) return aside;
  if (!view.myTurn) return <Ended {...props} />;
  if (!view.agreed) return <AgreementStep {...props} />;
  if (approves(view.me)) return <ApproveStep {...props} />;
  if (!view.hand || side === 'hand') return <HandStep signing={signing} view={view} token={token} onDone={back} />;
  const changed = view.again && view.changes.some((c) => c.open);
  if (changed && !told) return <ChangedStep {...props} onGo={() => setTold(true)} />;
  return <PlacesStep {...props} at={at} />;
}

function asideOf(side: Aside, props: StepProps, onPlace: (markId: string | null) => void) {
  switch (side) {
    case 'read':
      return <ReadAll token={props.token} view={props.view} onBack={props.onBack} />;
    case 'pages':
      return <PagesStep {...props} onPlace={onPlace} />;
    case 'ask':
      return <AskStep {...props} />;
    case 'not_me':
      return <NotMeStep {...props} />;
    case 'more':
      return <MoreStep {...props} />;
    case 'decline':
      return props.view.myTurn ? <DeclineStep {...props} /> : null;
    case 'hand_over':
      return props.view.mayHandOver ? <HandOverStep {...props} /> : null;
    case 'hand':
      return null;
  }
}
