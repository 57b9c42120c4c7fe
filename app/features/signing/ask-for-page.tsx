/** Asking for one's own page from any link: its address is sent where the links are sent. */
import { useAct } from '../../api/act';
import { call } from '../../api/client';
import { Button, Note } from '../../ui/pieces';
import { useSay } from './say';
import { Wrong } from './wrong';
import { Stack } from '../../ui/layout';

export function AskForPage({ token }: { token: string }) {
  const t = useSay();
  const ask = useAct(() => call('askForPage', { params: { token } }));
  // A rehearsal has no page.
  if (!token) return null;
  return (
    <Stack gap={8}>
      {ask.data ? (
        <Note tone="good" title={t('own.asked', { to: ask.data.to })} testID="own-asked" />
      ) : (
        <Button kind="quiet" busy={ask.isPending} onPress={() => ask.mutate()} fit testID="ask-own-page">
          {t('own.ask')}
        </Button>
      )}
      {ask.isError ? <Wrong error={ask.error} /> : null}
    </Stack>
  );
}
