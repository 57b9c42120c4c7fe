/** A server, a browser and a firm with the long form at hand: what tests of the desk begin with. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import type { DealView, DocumentView, PacketView } from '@gatepath/contract';
import type { Mark } from '@gatepath/core/packet';
import { launch, openPage, signIn, type PHONE, type WIDE } from './browser';
import { longForm } from './long-form';
import { MEMBER, Office } from './office';
import { ServerProcess } from './server';

const SELLERS = ['Wren Alder', 'Callum Alder', 'Priya Nair', 'Mateo Ibarra', 'Agnes Thorvald'];

/** Returns a number of sellers and two buyers, each with an address. */
export const people = (sellers: number) => [
  ...SELLERS.slice(0, sellers).map((name) => ({
    side: 'seller' as const,
    name,
    email: `${name.split(' ')[0]}@example.com`,
  })),
  { side: 'buyer' as const, name: 'Юрий Калина', email: 'yuri@example.com' },
  { side: 'buyer' as const, name: 'Henrike Osei', email: 'henrike@example.com' },
];

export class Workplace {
  private constructor(
    readonly server: ServerProcess,
    readonly browser: Browser,
    readonly office: Office,
    /** The long form as a file. */
    readonly form: string,
    readonly bytes: Uint8Array,
  ) {}

  static async start(): Promise<Workplace> {
    const server = await ServerProcess.start();
    const office = new Office(server);
    await office.setUp();
    const bytes = await longForm();
    const form = path.join(mkdtempSync(path.join(os.tmpdir(), 'form-')), 'Purchase agreement.pdf');
    writeFileSync(form, bytes);
    return new Workplace(server, await launch(), office, form, bytes);
  }

  async stop(): Promise<void> {
    await this.browser.close();
    await this.server.remove();
  }

  /** Opens a window of its own, signed in, at a path. */
  async open(viewport: typeof PHONE | typeof WIDE, where: string): Promise<Page> {
    const page = await openPage(this.browser, viewport);
    await signIn(page, this.server.url, MEMBER.email, MEMBER.password);
    await page.goto(this.server.url + where);
    return page;
  }

  /** Returns a deal of two sellers and two buyers, with a draft of the long form. */
  async freshPacket(name: string): Promise<{ deal: DealView; doc: DocumentView; packet: PacketView }> {
    const deal = await this.office.deal(name, people(2));
    const doc = await this.office.paper(deal.id, 'form.pdf', this.bytes);
    return { deal, doc, packet: await this.office.packet(deal.id, name, [doc.id]) };
  }

  async marksOf(packetId: string): Promise<Mark[]> {
    return (await this.office.look(packetId)).draft.marks;
  }
}
