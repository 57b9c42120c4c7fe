/** What went wrong, in the client's language. */
import type { RouteOf, RouteProblem } from '@gatepath/contract/routes';
import type { WordKey } from '@gatepath/core/words';
import { ApiError } from '../../api/client';
import { Button, Note } from '../../ui/pieces';
import { useSay, type Say } from './say';

/** The problems of a ceremony. */
type ClientProblem = RouteProblem<RouteOf<'link'>> | 'offline';

/**
 * Returns the words for problems that the server does not word for a client; null if its own sentence is in the
 * client's language.
 */
// eslint-disable-next-line max-lines-per-function -- one case for each problem; the compiler sees that none is missing
function ownWords(code: ClientProblem): WordKey | null {
  switch (code) {
    case 'offline':
      return 'problem.offline';
    case 'busy':
      return 'problem.busy';
    case 'too-many':
      return 'problem.too_many';
    case 'bad-request':
    case 'cut-off':
    case 'damaged':
    case 'disk-full':
    case 'internal':
    case 'media-type':
    case 'no-file':
    case 'no-form':
    case 'not-found':
    case 'other-origin':
    case 'stalled':
    case 'too-deep':
    case 'too-heavy':
    case 'too-large':
    case 'too-many-values':
    case 'undrawable':
    case 'not-worked-out':
      return 'problem.something';
    case 'agreement-changed':
    case 'already-done':
    case 'already-sealed':
    case 'already-sent':
    case 'bad-contact':
    case 'bad-day':
    case 'bad-letter-day':
    case 'bad-plan':
    case 'bad-value':
    case 'code-soon':
    case 'dead-link':
    case 'ended':
    case 'file-wanted':
    case 'filled-by-sender':
    case 'fills-itself':
    case 'has-acted':
    case 'host-wanted':
    case 'invalid':
    case 'lapsed':
    case 'letters':
    case 'locked':
    case 'marks-left':
    case 'no-hand':
    case 'no-handing-over':
    case 'no-paper':
    case 'no-picture':
    case 'nobody-to-nudge':
    case 'not-agreed':
    case 'not-executed':
    case 'not-sent':
    case 'not-your-mark':
    case 'not-your-turn':
    case 'question-wanted':
    case 'reason-wanted':
    case 'step-wanted':
    case 'taken-out':
    case 'too-many-questions':
    case 'unclean':
    case 'unknown-mark':
    case 'unknown-party':
    case 'unknown-question':
    case 'withdrawn':
    case 'wrong-code':
      return null;
  }
}

export function wordsOfError(t: Say, error: unknown): string {
  if (!(error instanceof ApiError)) return t('problem.something');
  // Of a problem that no client should have, the server's sentence is better than none.
  const own = ownWords(error.code as ClientProblem);
  return own ? t(own) : error.message;
}

export function Wrong({ error, retry }: { error: unknown; retry?: () => void }) {
  const t = useSay();
  return (
    <Note
      tone="stop"
      title={wordsOfError(t, error)}
      testID="trouble"
      action={
        retry ? (
          <Button kind="quiet" onPress={retry} fit>
            {t('sign.try_again')}
          </Button>
        ) : null
      }
    />
  );
}
