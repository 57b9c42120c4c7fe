/**
 * Query keys, all in one place. A key that begins another stands for all that begin with it: refetching `deals`
 * refetches every list of deals.
 */
import type { QueryKey } from '@tanstack/react-query';

export const keys = {
  session: ['session'],
  sessions: ['sessions'],
  firm: ['firm'],
  colleagues: ['colleagues'],
  invitation: (token: string) => ['invitation', token],
  texts: ['message-texts'],
  today: ['today'],
  insight: ['insight'],
  find: ['find'],
  found: (q: string) => ['find', q],

  deals: ['deals'],
  dealList: (ask: object) => ['deals', ask],
  dealTags: ['deals', 'tags'],
  dealHomes: (wanted: string) => ['deals', 'homes', wanted],
  savedLists: ['saved-lists'],
  everyDeal: ['deal'],
  deal: (id: string) => ['deal', id],
  dealKits: (dealId: string) => ['deal', dealId, 'kits'],
  review: (dealId: string, documentId: string) => ['deal', dealId, 'review', documentId],
  activity: (dealId: string) => ['activity', dealId],
  activityAbout: (dealId: string, about: string) => ['activity', dealId, about],
  binder: (dealId: string) => ['binder', dealId],
  feed: (dealId: string | null) => ['feed', dealId ?? 'own'],

  incoming: ['incoming'],
  incomingContract: (id: string) => ['incoming', id],

  rules: ['rules'],
  ruleTrial: (body: object) => ['rule-trial', body],

  people: ['people'],
  peopleFound: (search: string) => ['people', search],
  person: (id: string) => ['person', id],

  packet: (id: string) => ['packet', id],
  rememberedOf: (packetId: string) => ['remembered', packetId],
  remembered: (packetId: string, documentId: string, people: string) => ['remembered', packetId, documentId, people],
  facts: (documentId: string) => ['facts', documentId],
  signatures: (documentId: string) => ['signatures', documentId],
  changes: (documentId: string, beforeId: string) => ['changes', documentId, beforeId],

  mailroom: ['mailroom'],
  messages: (packetId: string | undefined) => ['mailroom', packetId ?? 'all'],
  message: (id: string) => ['message', id],

  notices: ['notices'],
  notice: (id: string) => ['notice', id],
  noticeView: (id: string) => ['notice', id, 'view'],
  noticeRows: (id: string, show: string) => ['notice', id, 'rows', show],
  noticeRules: ['notice-rules'],

  shelf: ['shelf'],
  shelfList: (what: string, search: string, retired: boolean) => ['shelf', what, search, retired],
  shelfItem: (id: string) => ['shelf-item', id],
  kitTrial: (dealId: string, kitId: string, changes: object) => ['kit-trial', dealId, kitId, changes],
  foundAgain: (shelfId: string, documentId: string, version: number) => ['found-again', shelfId, documentId, version],

  signing: (token: string) => ['signing', token],
  signingChanges: (token: string, documentId: string) => ['signing-changes', token, documentId],
  rehearsal: (packetId: string, partyId: string) => ['rehearsal', packetId, partyId],
  ownPage: (token: string) => ['own-page', token],
  words: (language: string | null) => ['words', language],
} as const satisfies Record<string, QueryKey | ((...of: never[]) => QueryKey)>;
