/** Screens of the office on their own: drawn with the house's theme, their requests answered by a test. */
import type { ReactElement } from 'react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { configure, render } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import type { DealSummary, DealView, PacketView, SentView, SessionView } from '@gatepath/contract';
import { type PacketParty, emptyDraft } from '@gatepath/core/packet';
import { keys } from '../api/keys';
import { ApiError } from '../api/client';

import { makeTheme } from '../ui/theme';

// On a busy machine an answer may take longer than the usual second.
configure({ asyncUtilTimeout: 10_000 });

export interface Asked {
  method: string;
  url: string;
  body: unknown;
}

const session: SessionView = {
  firm: { name: 'Towpath & Vane Realty', timeZone: 'America/New_York' },
  member: {
    id: 'odile',
    name: 'Odile Farrant',
    email: 'odile@example.com',
    role: 'owner',
    notices: ['done'],
    digest: false,
  },
  setupToken: false,
  demo: null,
  clockForward: true,
  mail: 'mailroom',
  languages: [
    { tag: 'en', name: 'English' },
    { tag: 'es', name: 'Español' },
  ],
  now: '2026-11-23T15:00:00.000Z',
};

const problemOf = ({ code, status, message, fields }: ApiError) => ({
  type: `/problems/${code}`,
  title: '',
  status,
  detail: message,
  fields,
});

/** Draws a piece of a screen; returns every request it makes. `answer` gives what the server says to one, or the error it answers with. */
export function show(element: ReactElement, answer: (asked: Asked) => unknown = () => ({})): Asked[] {
  const asked: Asked[] = [];
  globalThis.fetch = jest.fn(async (url: string, init: RequestInit = {}) => {
    const one = {
      method: init.method ?? 'GET',
      url: String(url),
      body: init.body ? (JSON.parse(String(init.body)) as unknown) : undefined,
    };
    asked.push(one);
    const body = answer(one);
    const status = body instanceof ApiError ? body.status : 200;
    const said = body instanceof ApiError ? problemOf(body) : body;
    return { ok: status === 200, headers: new Headers(), status, json: async () => said } as Response;
  }) as never;
  const client = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } });
  client.setQueryData(keys.session, session);
  render(
    <QueryClientProvider client={client}>
      <PaperProvider theme={makeTheme(false)}>{element}</PaperProvider>
    </QueryClientProvider>,
  );
  return asked;
}

export const party = (id: string, more: Partial<PacketParty> = {}): PacketParty => ({
  id,
  name: `${id[0]!.toUpperCase()}${id.slice(1)} Alder`,
  email: `${id}@example.com`,
  phone: null,
  side: 'seller',
  ordinal: 1,
  act: 'sign',
  ink: 0,
  ...more,
});

const partyView = (partyId: string): SentView['parties'][number] => ({
  partyId,
  status: 'waiting',
  askedAt: null,
  openedAt: null,
  doneAt: null,
  lastActAt: null,
  device: null,
  left: 2,
  total: 2,
  reason: null,
  seenAt: null,
  agreedAt: null,
  again: false,
  locked: false,
  proved: null,
  hostName: null,
  bounced: null,
  nudges: 0,
  lastNudgeAt: null,
  before: [],
  turn: false,
  shownAt: null,
  arrivedAt: null,
  letter: null,
  countsFrom: null,
  wantsLetter: false,
});

/** Returns a packet at its first gate: Wren is asked, Callum and Tobias come later. */
export function underWay(
  more: {
    parties?: Record<string, Partial<PacketParty>>;
    partyStatus?: Record<string, Partial<SentView['parties'][number]>>;
    sent?: Partial<SentView>;
    packet?: Partial<PacketView>;
  } = {},
): { packet: PacketView; sent: SentView } {
  const parties = ['wren', 'callum', 'tobias'].map((id) => party(id, more.parties?.[id]));
  const sent: SentView = {
    plan: {
      packetName: 'Papers',
      dealName: '14 Lantern Row',
      timeZone: 'America/New_York',
      subject: '',
      message: '',
      parties,
      gates: parties.map((p, i) => ({ id: `g${i}`, partyIds: [p.id] })),
      documents: [{ id: 'doc', name: 'Disclosure', sha256: '0'.repeat(64), pages: [{ width: 612, height: 792 }] }],
      marks: [],
    },
    seq: 1,
    gate: 0,
    sentAt: '2026-11-23T12:00:00.000Z',
    endedAt: null,
    parties: parties.map((p) => ({
      ...partyView(p.id),
      ...(p.id === 'wren' ? { status: 'asked' as const, askedAt: '2026-11-23T12:00:00.000Z', turn: true } : {}),
      ...more.partyStatus?.[p.id],
    })),
    questions: [],
    corrections: [],
    ahead: [],
    revisions: [],
    ledger: { rows: [], partyIds: [], total: 0, done: 0 },
    fills: [],
    redlines: [],
    forecast: null,
    holdUp: { partyIds: ['wren'], sentence: 'Wren has not opened it yet.' },
    activity: [],
    sealed: null,
    ...more.sent,
  };
  const packet: PacketView = {
    id: 'p',
    dealId: 'd',
    dealName: '14 Lantern Row',
    timeZone: 'America/New_York',
    name: 'Papers',
    status: 'at_gate',
    draft: emptyDraft('Papers'),
    version: 1,
    documents: [],
    facts: {} as PacketView['facts'],
    dealParties: [],
    holidays: [],
    kin: [],
    later: null,
    sent,
    ...more.packet,
  };
  return { packet, sent };
}

/** Returns a deal as lists show it. */
export const dealSummary = (n: number, more: Partial<DealSummary> = {}): DealSummary => ({
  id: `d${n}`,
  kind: 'sale',
  address: `${n} Lantern Row`,
  city: 'Tern Lock',
  forWhom: 'seller',
  status: 'preparing',
  tags: [],
  readiness: { met: 0, of: 0, late: [], before: [], sentence: 'The rules require nothing yet.' },
  archivedAt: null,
  goalOn: null,
  createdAt: '2026-11-23T10:00:00.000Z',
  packets: [],
  ...more,
});

/** Returns a deal as its page shows it. */
export const dealView = (more: Partial<DealView> = {}): DealView => ({
  ...dealSummary(1),
  timeZone: 'America/New_York',
  today: '2026-11-30',
  statusOn: '2026-11-23',
  facts: {},
  dates: {},
  memberIds: [],
  ownFacts: [],
  parties: [],
  documents: [],
  papers: [],
  requirements: [],
  asked: [],
  signatures: { done: 0, of: 0 },
  initials: { done: 0, of: 0 },
  next: [],
  slow: [],
  stated: [],
  retainUntil: null,
  disposable: true,
  ...more,
});
