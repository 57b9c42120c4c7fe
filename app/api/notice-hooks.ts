/** Notices to households as hooks. */
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type {
  HomesBody,
  LettersBody,
  NoticeBody,
  NoticePatch,
  NoticeRowPatch,
  NoticeRowsQuery,
  NoticeRulesBody,
} from '@gatepath/contract';
import { call, uploadFile } from './client';
import { useAct } from './act';
import { pageAfter } from './hooks';
import { keys } from './keys';
import { officeNews, useLive } from './live';

export type RowShow = NoticeRowsQuery['show'];

/** Queries notices, newest first, page by page. */
export function useNotices(enabled = true) {
  return useInfiniteQuery({
    queryKey: keys.notices,
    initialPageParam: '',
    queryFn: ({ pageParam }) => call('notices', { query: pageAfter(pageParam) }),
    getNextPageParam: (last) => last.next,
    enabled,
  });
}

/** Queries a notice; refetched whenever it changes. */
export function useNotice(id: string) {
  useLive(officeNews, `notice:${id}`, keys.notice(id));
  return useQuery({
    queryKey: keys.noticeView(id),
    queryFn: () => call('notice', { params: { noticeId: id } }),
    // Messages arrive and are opened without any change to the run.
    refetchInterval: (q) => (q.state.data?.state === 'going' || q.state.data?.working ? 1_500 : 30_000),
  });
}

/** Queries the households of a notice, page by page. */
export function useNoticeRows(id: string, show: RowShow) {
  return useInfiniteQuery({
    queryKey: keys.noticeRows(id, show),
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      call('noticeRows', { params: { noticeId: id }, query: { show, after: pageParam, limit: 50 } }),
    getNextPageParam: (last) => (last.next === null ? null : Number(last.next)),
  });
}

/** Makes a notice. */
export const useNewNotice = () => useAct((body: NoticeBody) => call('newNotice', { body }), { renews: [keys.notices] });

/** Returns the mutations that act on a notice as a whole, and on single rows. */
export function useNoticeActs(noticeId: string) {
  const params = { noticeId };
  const renews = [keys.notice(noticeId)];
  const whole = { shows: keys.noticeView(noticeId), renews };
  return {
    set: useAct((body: NoticePatch) => call('setNotice', { params, body }), whole),
    add: useAct((body: HomesBody) => call('addHomes', { params, body }), whole),
    go: useAct(() => call('goNotice', { params }), whole),
    stop: useAct(() => call('stopNotice', { params }), whole),
    drop: useAct(() => call('deleteNotice', { params }), { renews: [keys.notices] }),
    setRow: useAct(
      ({ rowId, ...body }: NoticeRowPatch & { rowId: string }) =>
        call('setNoticeRow', { params: { noticeId, rowId }, body }),
      { renews },
    ),
    letters: useAct((body: LettersBody) => call('lettersWent', { params, body }), { renews }),
    table: useAct(
      ({ file, take, map }: { file: File; take: boolean; map?: string[] }) =>
        uploadFile('homeTable', file, { params, query: { take, ...(map ? { map: map.join(',') } : {}) } }),
      { renews },
    ),
  };
}

/** Queries and saves the firm's rules for notices. */
export const useNoticeRules = () => ({
  rules: useQuery({ queryKey: keys.noticeRules, queryFn: () => call('noticeRules'), staleTime: 60_000 }),
  keep: useAct((body: NoticeRulesBody) => call('setNoticeRules', { body }), { shows: keys.noticeRules }),
});
