/** The firm's side of a test, by API: set up, deals, papers, drafts; the screens are driven elsewhere. */
import type { DealView, DocumentView, MessageSummary, PacketView, PartyBody } from '@gatepath/contract';
import type { DealKind } from '@gatepath/core/deal';
import type { DraftEdit } from '@gatepath/core/packet';
import { sure } from '@gatepath/core/sure';
import { eventually } from './browser';
import type { ServerProcess } from './server';

export const MEMBER = { email: 'odile@example.com', password: 'a long password' };

export class Office {
  private cookie = '';
  constructor(private readonly server: ServerProcess) {}

  async call<T>(method: string, path: string, body?: unknown, form?: FormData): Promise<T> {
    const r = await fetch(this.server.url + path, {
      method,
      headers: { cookie: this.cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      body: form ?? (body === undefined ? undefined : JSON.stringify(body)),
    });
    const set = r.headers.get('set-cookie');
    if (set) this.cookie = set.split(';')[0]!;
    if (!r.ok) throw new Error(`${method} ${path}: ${r.status} ${await r.text()}`);
    return (await r.json()) as T;
  }

  async setUp(): Promise<void> {
    await this.call('POST', '/api/setup', {
      firmName: 'Towpath & Vane Realty',
      timeZone: 'America/New_York',
      name: 'Odile Farrant',
      ...MEMBER,
    });
  }

  deal(address: string, parties: Partial<PartyBody>[], kind: DealKind = 'sale'): Promise<DealView> {
    return this.call<DealView>('POST', '/api/deals', { kind, address, city: 'Tern Lock', parties });
  }

  /** Brings a paper into a deal and waits until its pages are read. */
  async paper(dealId: string, name: string, bytes: Uint8Array): Promise<DocumentView> {
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(bytes)]), name);
    const doc = await this.call<DocumentView>('POST', `/api/deals/${dealId}/documents`, undefined, form);
    for (;;) {
      const now = (await this.call<DealView>('GET', `/api/deals/${dealId}`)).documents.find((d) => d.id === doc.id)!;
      if (now.status !== 'reading') return now;
      await new Promise((r) => setTimeout(r, 100));
    }
  }

  packet(dealId: string, name: string, documentIds: string[]): Promise<PacketView> {
    return this.call<PacketView>('POST', `/api/deals/${dealId}/packets`, { name, documentIds });
  }

  edit(packetId: string, edits: DraftEdit[]): Promise<{ version: number }> {
    return this.call<{ version: number }>('POST', `/api/packets/${packetId}/edits`, { edits });
  }

  /** Returns the newest link that was sent to a person for a packet. */
  async link(packetId: string, name: string): Promise<string> {
    return eventually(async () => {
      const mail = await this.call<{ items: MessageSummary[] }>('GET', `/api/mailroom?limit=100&packetId=${packetId}`);
      return sure(mail.items.find((m) => m.toName === name && m.link)?.link, 'the link');
    });
  }

  look(packetId: string): Promise<PacketView> {
    return this.call<PacketView>('GET', `/api/packets/${packetId}`);
  }
}
