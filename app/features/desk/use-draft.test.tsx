/** The draft on the screen: portions, refusals, and what is kept. */
import { act, renderHook, waitFor } from '@testing-library/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import type { PacketView } from '@gatepath/contract';
import { EDITS_A_PORTION } from '@gatepath/contract/limits';
import { type Draft, type DraftEdit, applyEdits, emptyDraft } from '@gatepath/core/packet';
import { useDraft } from './use-draft';

/** A server that keeps a draft, and will not take edits of some ids. */
class Server {
  draft: Draft = emptyDraft('Papers');
  version = 1;
  sizes: number[] = [];
  refuse = new Set<string>();
  /** With which answer it refuses them. */
  refusal = { status: 422, type: '/problems/invalid', detail: 'page is wrong' };
  answer = (body: { edits: DraftEdit[] }): Response => {
    this.sizes.push(body.edits.length);
    if (body.edits.some((e) => e.op === 'put' && this.refuse.has(e.item.id)))
      return json(this.refusal.status, { ...this.refusal, title: 'x' });
    this.draft = applyEdits(this.draft, body.edits);
    return json(200, { draft: this.draft, version: ++this.version, over: [] });
  };
}
const json = (status: number, body: unknown) =>
  ({ ok: status < 300, headers: new Headers(), status, json: () => Promise.resolve(body) }) as unknown as Response;

const client = new QueryClient();
const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={client}>{children}</QueryClientProvider>
);
const passed = (n: number): DraftEdit => ({ op: 'put', list: 'passed', item: { id: `p${n}` } });
const packet = (draft: Draft) => ({ id: 'packet-1', draft, version: 1 }) as PacketView;

let server: Server;
beforeEach(() => {
  localStorage.clear();
  server = new Server();
  globalThis.fetch = jest.fn((_url: string, init: { body: string }) =>
    Promise.resolve(server.answer(JSON.parse(init.body) as { edits: DraftEdit[] })),
  ) as unknown as typeof fetch;
});

test('more edits than fit into one request go in portions, in order', async () => {
  const { result } = renderHook(() => useDraft(packet(server.draft)), { wrapper });
  const many = Array.from({ length: EDITS_A_PORTION * 5 }, (_, i) => passed(i));
  act(() => result.current.edit(many));
  await waitFor(() => expect(server.draft.passed).toHaveLength(many.length), { timeout: 60_000 });
  expect(Math.max(...server.sizes)).toBe(EDITS_A_PORTION);
  expect(server.draft.passed.map((p) => p.id)).toEqual(many.map((e) => (e.op === 'put' ? e.item.id : '')));
  await waitFor(() => expect(result.current.saving.state).toBe('saved'));
  expect(localStorage.getItem('gatepath.pending.packet-1')).toBeNull();
});

test('of many edits only the one the server will not take is lost, and told', async () => {
  server.refuse.add('p7');
  const { result } = renderHook(() => useDraft(packet(server.draft)), { wrapper });
  act(() => result.current.edit(Array.from({ length: 40 }, (_, i) => passed(i))));
  await waitFor(() => expect(server.draft.passed).toHaveLength(39), { timeout: 60_000 });
  expect(server.draft.passed.some((p) => p.id === 'p7')).toBe(false);
  await waitFor(() => expect(result.current.draft.passed).toHaveLength(39));
  expect(result.current.canUndo).toBe(false);
});

test('an edit that a kit has locked is named and left out, and the rest goes on', async () => {
  server.refuse.add('p3');
  server.refusal = { status: 403, type: '/problems/locked-setting', detail: 'The kit has locked subject and message.' };
  const { result } = renderHook(() => useDraft(packet(server.draft)), { wrapper });
  act(() => result.current.edit(Array.from({ length: 6 }, (_, i) => passed(i))));
  await waitFor(() => expect(server.draft.passed).toHaveLength(5), { timeout: 60_000 });
  await waitFor(() => expect(result.current.draft.passed).toHaveLength(5));
  act(() => result.current.edit([passed(9)]));
  await waitFor(() => expect(server.draft.passed.map((p) => p.id)).toContain('p9'));
  // The server's answer arrives after the server has changed.
  await waitFor(() => expect(localStorage.getItem('gatepath.pending.packet-1')).toBeNull());
});

test('a refusal that passes is tried again, and nothing is left out', async () => {
  server.refuse.add('p0');
  server.refusal = { status: 409, type: '/problems/changed-meanwhile', detail: 'Someone changed it just now.' };
  const { result } = renderHook(() => useDraft(packet(server.draft)), { wrapper });
  act(() => result.current.edit([passed(0), passed(1)]));
  await waitFor(() => expect(server.sizes.length).toBeGreaterThan(0));
  server.refuse.clear();
  await waitFor(() => expect(server.draft.passed).toHaveLength(2), { timeout: 20_000 });
});
