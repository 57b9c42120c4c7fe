/** The client's ceremony: one calm column, one thing at a time. */
import { approves } from '@gatepath/core/filling';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import type { SigningView } from '@gatepath/contract';
import type { WordKey } from '@gatepath/core/words';
import { urlOf } from '@gatepath/contract/paths';
import { ApiError, isRefused } from '../../api/client';
import { usePalette } from '../../ui/hooks';
import { AgreementStep } from './agreement-step';
import { ApproveStep } from './approve-step';
import { AskStep } from './ask-step';
import { ChangedStep } from './changed-step';
import { CodeStep } from './code-step';
import { DeclineStep } from './decline-step';
import { Ended } from './ended';
import { RehearsedFiles } from './files';
import { HandedOver, HandOverStep } from './hand-over-step';
import { HandStep } from './hand-step';
import { MoreStep } from './more-step';
import { NotMeStep } from './not-me-step';
import { browserLanguage, Unopened, Waiting } from './opening';
import { PagesStep } from './pages-step';
import { SendingBar } from './parts';
import { PlacesStep } from './places-step';
import { ReadAll } from './read-all';
import { RevisedStep } from './revised-step';
import type { Aside, StepProps } from './step';
import { InLanguage, useLanguage } from './say';
import { useSigning, type Signing } from './use-signing';
import { Stack } from '../../ui/layout';

export function Ceremony({ token }: { token: string }) {
  return <Gone token={token} signing={useSigning(token)} />;
}

/**
 * The same for a member who goes through a draft as one of its people will. What the acts do is given by the desk
 * (`useRehearsal`): clients do not load it.
 */
export function Rehearsed({ signing }: { signing: Signing }) {
  const files = useMemo(
    () => ({
      page: (documentId: string, page: number) => urlOf('documentPage', { documentId, page }),
      picture: () => '',
    }),
    [],
  );
  return (
    <RehearsedFiles.Provider value={files}>
      <Gone token="" signing={signing} />
    </RehearsedFiles.Provider>
  );
}

function Gone({ token, signing }: { token: string; signing: Signing }) {
  const refused = signing.query.error;
  // What the server says of an ended link it says in its reader's language: the rest of the screen follows.
  const told = refused instanceof ApiError ? refused.language : null;
  const words = useLanguage(told ?? signing.view?.language ?? browserLanguage());
  const p = usePalette();
  const { query, view } = signing;
  if (query.isPending || !words) return <Waiting />;
  // A link can end while the page is open: withdrawn, lapsed, handed over. A lost connection ends nothing.
  if (view && signing.handOver.isSuccess)
    return (
      <InLanguage words={words}>
        <HandedOver to={signing.handOver.variables?.name ?? ''} />
      </InLanguage>
    );
  if (!view || isRefused(query.error))
    return (
      <InLanguage words={words}>
        <Unopened title={titleOf(query.error)} error={query.error} retry={() => void query.refetch()} />
      </InLanguage>
    );
  return (
    <InLanguage words={words}>
      <View style={{ flex: 1, backgroundColor: p.paper }}>
        <SendingBar signing={signing} />
        <Stack grow>
          <Steps token={token} signing={signing} view={view} />
        </Stack>
      </View>
    </InLanguage>
  );
}

/** Returns the title of a link that opens nothing. */
function titleOf(error: Error | null): WordKey {
  switch (error instanceof ApiError ? error.code : '') {
    case 'lapsed':
      return 'sign.end.lapsed';
    case 'not-your-turn':
      return 'sign.not_yet';
    case 'taken-out':
      return 'sign.end.nothing';
    default:
      return 'sign.cannot_open';
  }
}

function Steps({ token, signing, view }: { token: string; signing: Signing; view: SigningView }) {
  const [side, setSide] = useState<Aside | null>(null);
  const [at, setAt] = useState<string | null>(null);
  const [told, setTold] = useState(false);
  const [seen, setSeen] = useState(false);
  const back = () => setSide(null);
  const props = { token, signing, view, onBack: back, onSide: setSide };
  if (view.step) return <CodeStep signing={signing} view={view} />;
  const aside = side && asideOf(side, props, (markId) => (setAt(markId), setSide(null)));
  if (aside) return aside;
  if (!view.myTurn) return <Ended {...props} />;
  if (!view.agreed) return <AgreementStep {...props} />;
  // A person who has begun to sign has seen it.
  if (view.revised.length && !view.somethingSigned && !seen)
    return <RevisedStep {...props} onGo={() => setSeen(true)} />;
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
