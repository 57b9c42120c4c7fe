/** Message texts as hooks. */
import { useQuery } from '@tanstack/react-query';
import type { MessageTextBody } from '@gatepath/contract';
import { useAct } from './act';
import { call } from './client';
import { keys } from './keys';

/** Queries the member's own texts and those the firm shares. */
export const useMessageTexts = () =>
  useQuery({ queryKey: keys.texts, queryFn: () => call('messageTexts'), staleTime: 60_000 });

/** Saves and deletes texts. */
export const useTextActs = () => ({
  keep: useAct((body: MessageTextBody) => call('saveText', { body }), { shows: keys.texts }),
  drop: useAct((textId: string) => call('deleteText', { params: { textId } }), { shows: keys.texts }),
});
