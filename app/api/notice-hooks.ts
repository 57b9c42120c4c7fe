/** Notices to households as hooks. */
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  HomesBody,
  LettersBody,
  NoticeBody,
  NoticePatch,
  NoticeRowPatch,
  NoticeRowsQuery,
  NoticeRulesBody,
  NoticeView,
} from '@gatepath/contract';
import { call, uploadFile } from './client';
import { pageAfter } from './hooks';
import { officeNews, useLive } from './live';

export type RowShow = NoticeRowsQuery['show'];

const keys = {
  list: ['notices'],
  one: (id: string) => ['notice', id],
  view: (id: string) => ['notice', id, 'view'],
  rows: (id: string, show: RowShow) => ['notice', id, 'rows', show],
  rules: ['notice-rules'],
} as const;

/** Notices, newest first, page by page. */
export function useNotices(enabled = true) {
  return useInfiniteQuery({
    queryKey: keys.list,
    initialPageParam: '',
    queryFn: ({ pageParam }) => call('notices', { query: pageAfter(pageParam) }),
    getNextPageParam: (last) => last.next,
    enabled,
  });
}

/** A notice, asked for again whenever something of it changes. */
export function useNotice(id: string) {
  useLive(officeNews, `notice:${id}`, keys.one(id));
  return useQuery({
    queryKey: keys.view(id),
    queryFn: () => call('notice', { params: { noticeId: id } }),
    // Messages arrive and are opened without the run having anything to do with it.
    refetchInterval: (q) => (q.state.data?.state === 'going' || q.state.data?.working ? 1_500 : 30_000),
  });
}

/** The households of a notice, page by page. */
export function useNoticeRows(id: string, show: RowShow) {
  return useInfiniteQuery({
    queryKey: keys.rows(id, show),
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      call('noticeRows', { params: { noticeId: id }, query: { show, after: pageParam, limit: 50 } }),
    getNextPageParam: (last) => (last.next === null ? null : Number(last.next)),
  });
}

export function useNewNotice() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: NoticeBody) => call('newNotice', { body }),
    onSuccess: () => void client.invalidateQueries({ queryKey: keys.list }),
  });
}

/** What is done with a notice as a whole, and with single rows. */
export function useNoticeActs(noticeId: string) {
  const client = useQueryClient();
  const params = { noticeId };
  const again = () => void client.invalidateQueries({ queryKey: keys.one(noticeId) });
  const onSuccess = (view: NoticeView) => {
    client.setQueryData(keys.view(noticeId), view);
    again();
  };
  return {
    set: useMutation({ mutationFn: (body: NoticePatch) => call('setNotice', { params, body }), onSuccess }),
    add: useMutation({ mutationFn: (body: HomesBody) => call('addHomes', { params, body }), onSuccess }),
    go: useMutation({ mutationFn: () => call('goNotice', { params }), onSuccess }),
    stop: useMutation({ mutationFn: () => call('stopNotice', { params }), onSuccess }),
    drop: useMutation({
      mutationFn: () => call('deleteNotice', { params }),
      onSuccess: () => void client.invalidateQueries({ queryKey: keys.list }),
    }),
    setRow: useMutation({
      mutationFn: ({ rowId, ...body }: NoticeRowPatch & { rowId: string }) =>
        call('setNoticeRow', { params: { noticeId, rowId }, body }),
      onSuccess: again,
    }),
    letters: useMutation({
      mutationFn: (body: LettersBody) => call('lettersWent', { params, body }),
      onSuccess: again,
    }),
    table: useMutation({
      mutationFn: ({ file, take, map }: { file: File; take: boolean; map?: string[] }) =>
        uploadFile('homeTable', file, {
          params,
          query: { take, ...(map ? { map: map.join(',') } : {}) },
        }),
      onSuccess: again,
    }),
  };
}

/** The firm's rules for notices, and keeping them. */
export function useNoticeRules() {
  const client = useQueryClient();
  const rules = useQuery({ queryKey: keys.rules, queryFn: () => call('noticeRules'), staleTime: 60_000 });
  const keep = useMutation({
    mutationFn: (body: NoticeRulesBody) => call('setNoticeRules', { body }),
    onSuccess: (view) => client.setQueryData(keys.rules, view),
  });
  return { rules, keep };
}
