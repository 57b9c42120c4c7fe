/** Method and path of every route by name; paths hold `:names`. Apart from the schemas, so that a screen can call
 *  a route without carrying the language they are written in. */

export interface Wire {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  path: string;
}

const to = (method: Wire['method'], path: string): Wire => ({ method, path });

export const paths = {
  session: to('GET', '/api/session'),
  setup: to('POST', '/api/setup'),
  signIn: to('POST', '/api/session'),
  signOut: to('DELETE', '/api/session'),
  words: to('GET', '/api/words/:language'),
  check: to('POST', '/api/check'),
  setNotices: to('PUT', '/api/session/notices'),
  setHolidays: to('PUT', '/api/firm/holidays'),
  tryAgain: to('POST', '/api/firm/work'),
  forwardClock: to('POST', '/api/clock'),
  firm: to('GET', '/api/firm'),
  deals: to('GET', '/api/deals'),
  newDeal: to('POST', '/api/deals'),
  deal: to('GET', '/api/deals/:dealId'),
  dealLive: to('GET', '/api/deals/:dealId/live'),
  setDeal: to('PATCH', '/api/deals/:dealId'),
  addParty: to('POST', '/api/deals/:dealId/parties'),
  setParty: to('PUT', '/api/parties/:partyId'),
  dropParty: to('DELETE', '/api/parties/:partyId'),
  addDocument: to('POST', '/api/deals/:dealId/documents'),
  composeDocument: to('POST', '/api/deals/:dealId/documents/compose'),
  setDocument: to('PATCH', '/api/documents/:documentId'),
  dropDocument: to('DELETE', '/api/documents/:documentId'),
  documentFacts: to('GET', '/api/documents/:documentId/facts'),
  documentFile: to('GET', '/api/documents/:documentId/original'),
  documentPage: to('GET', '/api/documents/:documentId/pages/:page'),
  newPacket: to('POST', '/api/deals/:dealId/packets'),
  packet: to('GET', '/api/packets/:packetId'),
  packetLive: to('GET', '/api/packets/:packetId/live'),
  editPacket: to('POST', '/api/packets/:packetId/edits'),
  dropPacket: to('DELETE', '/api/packets/:packetId'),
  sendPacket: to('POST', '/api/packets/:packetId/send'),
  withdrawPacket: to('POST', '/api/packets/:packetId/withdraw'),
  changePacket: to('POST', '/api/packets/:packetId/changes'),
  newVersion: to('POST', '/api/packets/:packetId/new-version'),
  lateRound: to('POST', '/api/packets/:packetId/late-round'),
  hostParty: to('POST', '/api/packets/:packetId/parties/:partyId/host'),
  ownPass: to('POST', '/api/packets/:packetId/parties/:partyId/own'),
  chain: to('GET', '/api/packets/:packetId/chain'),
  packetPicture: to('GET', '/api/packets/:packetId/pictures/:sha256'),
  sealedCopy: to('GET', '/api/packets/:packetId/sealed/:documentId'),
  mailroom: to('GET', '/api/mailroom'),
  message: to('GET', '/api/mailroom/:messageId'),
  messageFile: to('GET', '/api/mailroom/:messageId/eml'),
  returnMessage: to('POST', '/api/mailroom/:messageId/return'),
  signing: to('GET', '/api/signing/:token'),
  signingLive: to('GET', '/api/signing/:token/live'),
  signingPage: to('GET', '/api/signing/:token/documents/:documentId/pages/:page'),
  signingFile: to('GET', '/api/signing/:token/documents/:documentId/file'),
  agree: to('POST', '/api/signing/:token/agreement'),
  setHand: to('PUT', '/api/signing/:token/hand'),
  addFile: to('POST', '/api/signing/:token/marks/:markId/file'),
  fill: to('PUT', '/api/signing/:token/marks/:markId'),
  finish: to('POST', '/api/signing/:token/finish'),
  signingPicture: to('GET', '/api/signing/:token/pictures/:sha256'),
  addPicture: to('POST', '/api/signing/:token/pictures'),
  sendCode: to('POST', '/api/signing/:token/code'),
  giveCode: to('POST', '/api/signing/:token/step'),
  setLanguage: to('PUT', '/api/signing/:token/language'),
  askQuestion: to('POST', '/api/signing/:token/questions'),
  handOver: to('POST', '/api/signing/:token/hand-over'),
  agreementCopy: to('POST', '/api/signing/:token/agreement/copy'),
  decline: to('POST', '/api/signing/:token/decline'),
} satisfies Record<string, Wire>;

export type RouteName = keyof typeof paths;

/** The path of a route with its `:names` filled in. */
export function pathOf(name: RouteName, params: Record<string, string | number> = {}): string {
  return paths[name].path.replace(/:(\w+)/g, (_, key: string) => {
    const value = params[key];
    if (value === undefined) throw new Error(`route ${name} needs ${key}`);
    return encodeURIComponent(String(value));
  });
}
