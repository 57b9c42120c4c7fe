import { X509Certificate } from 'node:crypto';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import type { ShownFill } from '@gatepath/contract';
import { seal } from '../server/pdf/seal';
import { makeSeal } from '../server/proof/seal-key';
import { median, rowOf, type Row } from './measure';

const PAGES = 100;
const PARTIES = ['WA', 'CA', 'PN', 'MI'];

/** Sealing 100 pages with four parties' initials on each, against a bare load and save of the same file. */
export async function row(): Promise<Row> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let n = 1; n <= PAGES; n++) {
    const page = doc.addPage([612, 792]);
    for (let y = 720; y > 90; y -= 14)
      page.drawText('The owner keeps the mooring posts and the shed in good order and insured.', {
        x: 72,
        y,
        size: 10,
        font,
      });
  }
  const bytes = await doc.save({ useObjectStreams: false });
  const fills: ShownFill[] = Array.from({ length: PAGES }, (_, p) =>
    PARTIES.map((text, i) => ({
      markId: `${p}-${i}`,
      documentId: 'd',
      page: p + 1,
      rect: { x: 24 + i * 60, y: 746, w: 54, h: 22 },
      kind: 'initials' as const,
      partyId: text,
      ink: i,
      shows: { form: 'typed' as const, face: 'caveat' as const, text },
    })),
  ).flat();
  const pem = makeSeal('Towpath & Vane Realty', new Date());
  const cut = pem.indexOf('-----BEGIN CERT');
  const record = {
    firmName: 'Towpath & Vane Realty',
    packetName: 'Papers',
    dealName: '14 Lantern Row',
    documentName: 'Hundred pages',
    pageCount: PAGES,
    documentSha256: '0'.repeat(64),
    packetHash: '0'.repeat(64),
    executedAt: 'Nov 23, 2026, 12:00:00',
    zone: 'America/New_York',
    parties: PARTIES.map((name) => ({ name, lines: ['signed'] })),
    acts: PARTIES.map((name) => ({
      name,
      items: Array.from({ length: PAGES }, (_, p) => `p. ${p + 1} initials, 2026-11-23 12:00:00`),
    })),
    history: ['sent', 'executed'],
  };
  const signing = {
    keyPem: pem.slice(0, cut),
    certificates: [new Uint8Array(new X509Certificate(pem.slice(cut)).raw)],
    name: 'Towpath & Vane Realty',
    reason: 'Executed',
    at: '2026-11-23T17:00:00.000Z',
  };
  const ours = await median(() => seal({ bytes, fills, redlines: [], record, signing }), 5);
  const theirs = await median(async () => (await PDFDocument.load(bytes)).save({ useObjectStreams: false }), 5);
  return rowOf('seal 100 pages, 400 initials, record of 400 acts', ours, 'pdf-lib bare load and save', theirs);
}
