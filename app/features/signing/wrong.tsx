/** What went wrong, said in the client's language. */
import { ApiError } from '../../api/client';
import { Button, Note } from '../../ui/pieces';
import { useSay, type Say } from './say';

/** Problems the server does not word for one client: a lost connection, a fault, too many requests. */
const OWN_WORDS: Record<string, 'problem.too_many' | 'problem.something' | 'problem.busy'> = {
  busy: 'problem.busy',
  damaged: 'problem.something',
  undrawable: 'problem.something',
  'too-heavy': 'problem.something',
  'disk-full': 'problem.something',
  'too-many': 'problem.too_many',
  internal: 'problem.something',
  'bad-request': 'problem.something',
  'not-found': 'problem.something',
};

export function wordsOfError(t: Say, error: unknown): string {
  if (!(error instanceof ApiError)) return t('problem.something');
  if (error.status === 0) return t('problem.offline');
  const own = OWN_WORDS[error.code];
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
          <Button kind="quiet" onPress={retry} style={{ alignSelf: 'flex-start' }}>
            {t('sign.try_again')}
          </Button>
        ) : null
      }
    />
  );
}
