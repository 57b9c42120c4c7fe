/** Asking for one's own page, from any link: its address goes where the links go. */
import { useMutation } from '@tanstack/react-query';
import { View } from 'react-native';
import { call } from '../../api/client';
import { Button, Note } from '../../ui/pieces';
import { useSay } from './say';
import { Wrong } from './wrong';

export function AskForPage({ token }: { token: string }) {
  const t = useSay();
  const ask = useMutation({ mutationFn: () => call('askForPage', { params: { token } }) });
  // Who only rehearses has no page.
  if (!token) return null;
  return (
    <View style={{ gap: 8 }}>
      {ask.data ? (
        <Note tone="good" title={t('own.asked', { to: ask.data.to })} testID="own-asked" />
      ) : (
        <Button
          kind="quiet"
          busy={ask.isPending}
          onPress={() => ask.mutate()}
          style={{ alignSelf: 'flex-start' }}
          testID="ask-own-page"
        >
          {t('own.ask')}
        </Button>
      )}
      {ask.isError ? <Wrong error={ask.error} /> : null}
    </View>
  );
}
