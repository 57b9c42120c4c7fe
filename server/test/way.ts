/** Packets on their way, against a real server: sent, signed and looked at as members and clients do. */
import type { ChangeBody, DealView, MessageView, PacketView, SigningView } from '@gatepath/contract';
import type { DraftEdit, MarkKind, PacketParty } from '@gatepath/core/packet';
import type { InProcess } from '../in-process';
import { TestServer, typedHand } from './harness';
import { paper } from './papers';

export interface Sent {
  deal: DealView;
  packet: PacketView;
  id: (name: string) => string;
}

export const markEdit = (
  id: string,
  documentId: string,
  page: number,
  kind: MarkKind,
  partyId: string,
  rect: { x: number; y: number; w: number; h: number },
): DraftEdit => ({
  op: 'put',
  list: 'marks',
  item: { id, documentId, page, kind, partyId, rect, required: true },
});

/**
 * Starts one server for all tests of a file, with its clock at noon, and stops it after them.
 *
 * @param started  receives the server before the first test
 */
export function serverAtNoon(started: (way: Way) => void): void {
  let way: Way | undefined;
  beforeAll(async () => {
    way = await Way.start();
    way.server.toNoon();
    started(way);
  });
  afterAll(() => way?.stop());
}

/** Returns the secret in a message's signing link. */
export const tokenIn = (m: MessageView) => m.link!.split('/sign/')[1]!;

/**
 * Does everything a party has to do through a token, over the API.
 *
 * @returns the last answer, and how many places were filled
 */
export async function signAll(
  client: Pick<InProcess, 'ok'>,
  token: string,
  name: string,
): Promise<{ view: SigningView; filled: number }> {
  const call = <N extends 'signing' | 'agree' | 'setHand' | 'fill' | 'finish'>(
    route: N,
    body?: unknown,
    more: { markId?: string } = {},
  ) => client.ok(route, { params: { token, ...more }, body, as: 'nobody' });
  let view = await call('signing');
  if (!view.agreed) view = await call('agree', { agreement: view.agreementText.version });
  const initials = name
    .split(' ')
    .map((w) => w[0])
    .join('');
  if (!view.hand && view.me.act !== 'approve') view = await call('setHand', typedHand(name, initials));
  const places = view.marks.filter((x) => !x.done && !x.automatic);
  for (const m of places) await call('fill', { actId: `act-${m.id}-${view.packetId}` }, { markId: m.id });
  view = await call('finish', { actId: `finish-${name.replace(/\W/g, '')}-${view.marks.length}` });
  return { view, filled: places.length };
}

export class Way {
  private constructor(readonly server: TestServer) {}

  static async start(): Promise<Way> {
    return new Way(await TestServer.start());
  }

  stop(): Promise<void> {
    return this.server.stop();
  }

  /**
   * Sends a packet of one paper, of two pages by default. Everyone who signs initials every page and signs the last.
   */
  async send(
    people: { name: string; email?: string; phone?: string; more?: Partial<PacketParty> }[],
    gates: { names: string[]; need?: 'any' }[],
    edits: DraftEdit[] = [],
    bytes?: Uint8Array,
  ): Promise<Sent> {
    const deal = await this.server.deal(
      '14 Lantern Row',
      people.map(({ name, email, phone }) => ({
        side: 'seller' as const,
        name,
        ...(email === undefined ? {} : { email }),
        ...(phone ? { phone } : {}),
      })),
    );
    const doc = await this.server.uploadReady(deal.id, 'disclosure.pdf', bytes ?? (await paper({ pages: 2 })));
    const last = doc.pages.length;
    const draft = await this.server.ok('newPacket', {
      params: { dealId: deal.id },
      body: { name: 'Papers', documentIds: [doc.id] },
    });
    const id = (name: string) => deal.parties.find((p) => p.name.startsWith(name))!.id;
    const parties = draft.draft.parties.map((p) => ({ ...p, ...people.find((x) => x.name === p.name)!.more }));
    await this.server.edit(draft.id, [
      ...draft.draft.gates.map((g): DraftEdit => ({ op: 'drop', list: 'gates', id: g.id })),
      ...parties.map((item): DraftEdit => ({ op: 'put', list: 'parties', item })),
      ...gates.map((g, i): DraftEdit => ({
        op: 'put',
        list: 'gates',
        item: { id: `g${i}`, partyIds: g.names.map(id), ...(g.need ? { need: g.need } : {}) },
      })),
      ...parties
        .filter((p) => p.act === 'sign' || p.act === 'desk')
        .flatMap((p, i): DraftEdit[] => [
          markEdit(`s${i}`, doc.id, last, 'signature', p.id, { x: 72, y: 640 + i * 34, w: 160, h: 26 }),
          markEdit(`d${i}`, doc.id, last, 'date_signed', p.id, { x: 260, y: 640 + i * 34, w: 90, h: 20 }),
        ]),
      {
        op: 'put',
        list: 'rules',
        item: {
          id: 'every',
          documentId: doc.id,
          partyIds: parties.filter((p) => p.act === 'sign' || p.act === 'desk').map((p) => p.id),
          anchor: { fx: 0, fy: 1 },
          except: [],
          moved: [],
        },
      },
      ...edits,
    ]);
    return { deal, packet: await this.server.send(draft.id), id };
  }

  /** Does everything a party has to do through a token. */
  async signAll(token: string, name: string): Promise<SigningView> {
    return (await signAll(this.server, token, name)).view;
  }

  async messagesOf(packetId: string): Promise<MessageView[]> {
    const page = await this.server.ok('mailroom', { query: { packetId, limit: '100' } });
    return Promise.all(page.items.map((m) => this.server.ok('message', { params: { messageId: m.id } })));
  }

  /** Returns the newest message to somebody, of a kind or of any. */
  async newest(packetId: string, name: string, kind?: string): Promise<MessageView> {
    return (await this.messagesOf(packetId)).find((m) => m.toName === name && (!kind || m.kind === kind))!;
  }

  /** Returns the sealed copies, once they are there. */
  async sealed(packetId: string): Promise<Buffer[]> {
    for (let i = 0; i < 200; i++) {
      const p = await this.look(packetId);
      if (p.sent?.sealed)
        return Promise.all(
          p.sent.sealed.map(
            async (s) => (await this.server.call('sealedCopy', { params: { packetId, documentId: s.documentId } })).raw,
          ),
        );
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('never sealed');
  }

  change(packetId: string, body: ChangeBody): Promise<PacketView> {
    return this.server.ok('changePacket', { params: { packetId }, body });
  }

  look(packetId: string): Promise<PacketView> {
    return this.server.ok('packet', { params: { packetId } });
  }

  /** Returns the status a link answers with, whether it opens or not. */
  statusOf(token: string) {
    return this.server.call('signing', { params: { token }, as: 'nobody' });
  }
}
