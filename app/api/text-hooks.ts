/** Message texts as hooks. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { MessageTextBody, MessageTexts } from '@gatepath/contract';
import { call } from './client';

const KEY = ['message-texts'];

/** The member's own texts, and those the firm shares. */
export function useMessageTexts() {
  return useQuery({ queryKey: KEY, queryFn: () => call('messageTexts'), staleTime: 60_000 });
}

/** Keeping a text, and letting one go. */
export function useTextActs() {
  const client = useQueryClient();
  const onSuccess = (texts: MessageTexts) => client.setQueryData(KEY, texts);
  return {
    keep: useMutation({ mutationFn: (body: MessageTextBody) => call('saveText', { body }), onSuccess }),
    drop: useMutation({ mutationFn: (textId: string) => call('deleteText', { params: { textId } }), onSuccess }),
  };
}
