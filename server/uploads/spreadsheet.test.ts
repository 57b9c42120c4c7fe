/** Spreadsheets as papers: values as shown, formulas never run, and files made to hurt. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { deflateRawSync } from 'node:zlib';
import JSZip from 'jszip';
import * as xlsx from '@e965/xlsx';
import { TestServer } from '../test/harness';
import { convert, sortOf } from './convert';

jest.setTimeout(240_000);

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-sheets-'));

/** Returns a file as another program writes it. */
const kept = (book: xlsx.WorkBook) => {
  const bytes: Buffer = xlsx.write(book, { type: 'buffer', bookType: 'xlsx', compression: true, bookSST: true });
  return new Uint8Array(bytes);
};
let n = 0;
/** Returns the words of what a spreadsheet becomes, and the sizes of its pages, as others see them. */
async function printed(bytes: Uint8Array): Promise<{ text: string; sizes: string[] }> {
  const made = await convert(bytes, 'xlsx', 'Rent roll');
  if ('problem' in made) throw new Error(made.problem);
  const file = path.join(dir, `${n++}.pdf`);
  writeFileSync(file, made.bytes);
  execFileSync('qpdf', ['--check', file]);
  const info = execFileSync('pdfinfo', ['-l', '99', file]).toString();
  return {
    text: execFileSync('pdftotext', ['-layout', file, '-']).toString(),
    sizes: [...info.matchAll(/Page +\d+ size: +([\d.]+) x ([\d.]+)/g)].map((m) => `${m[1]} x ${m[2]}`),
  };
}

/** Returns the days since the end of 1899. */
const day = (iso: string) => Date.parse(iso) / 86_400_000 + 25_569;

function roll(columns = 4): xlsx.WorkBook {
  const more = <T>(one: (i: number) => T) => Array.from({ length: columns - 4 }, (_, i) => one(i));
  const sheet = xlsx.utils.aoa_to_sheet([
    ['Unit', 'Rent', 'Since', 'Share', ...more((i) => `Column ${i + 5}`)],
    ['1A', 1250.5, day('2026-03-01'), 0.256, ...more((i) => i)],
    ['1B', -300, day('2026-11-29'), 1],
  ]);
  for (const row of [2, 3]) {
    sheet[`B${row}`].z = '"$"#,##0.00;[Red]("$"#,##0.00)';
    sheet[`C${row}`].z = 'd mmm yyyy';
    sheet[`D${row}`].z = '0.0%';
  }
  const book = xlsx.utils.book_new();
  xlsx.utils.book_append_sheet(book, sheet, 'Rent roll');
  return book;
}
const first = (book: xlsx.WorkBook) => book.Sheets['Rent roll']!;
/** Sets cells of the first sheet, down to the seventh row. */
function set(book: xlsx.WorkBook, cells: Record<string, xlsx.CellObject>): void {
  Object.assign(first(book), cells, { '!ref': 'A1:D7' });
}

describe('what is shown', () => {
  test('numbers, days and shares stand as their formats say', async () => {
    const { text, sizes } = await printed(await kept(roll()));
    expect(text).toMatch(/Unit +Rent +Since +Share/);
    expect(text).toMatch(/1A +\$1,250\.50 +1 Mar 2026 +25\.6%/);
    expect(text).toMatch(/1B +\(\$300\.00\) +29 Nov 2026 +100\.0%/);
    expect(sizes).toEqual(['612 x 792']);
  });
  test('a formula is what it came to when the file was kept, and is never run; without that it says so', async () => {
    const book = roll();
    set(book, {
      B5: { t: 'n', f: 'SUM(B2:B3)', v: 77, z: '"$"#,##0.00' },
      D5: { t: 'n', f: 'D2-D2', v: 0, z: '0.0%' },
      A6: { t: 's', f: "'[C:\\other.xlsx]Sheet1'!A1", v: 'from elsewhere' },
      A7: { t: 'n', f: 'WEBSERVICE("http://localhost/")' },
    });
    const { text } = await printed(await kept(book));
    expect(text).toMatch(/\$77\.00 +0\.0%/);
    expect(text).toContain('from elsewhere');
    expect(text).toContain('(not worked out)');
    expect(text).not.toMatch(/SUM|other\.xlsx|WEBSERVICE|950/);
  });
  test('a wide sheet lies; one wider than a page goes on further pages; what is hidden is not shown', async () => {
    const wide = await printed(await kept(roll(14)));
    expect(wide.sizes).toEqual(['792 x 612']);
    const book = roll(60);
    xlsx.utils.book_append_sheet(book, xlsx.utils.aoa_to_sheet([['nobody sees this']]), 'Secret');
    book.Workbook = { Sheets: [{ Hidden: 0 }, { Hidden: 1 }] };
    first(book)['!rows'] = [{}, {}, { hidden: true }];
    const { text, sizes } = await printed(await kept(book));
    expect(sizes.length).toBeGreaterThan(1);
    expect(text).toContain('Column 60');
    expect(text).toContain('Rent roll (2 of');
    expect(text).not.toMatch(/nobody|1B/);
  });
  test('a long remark stands there whole, over as many pages as it needs', async () => {
    const book = roll();
    set(book, { A5: { t: 's', v: 'One remark. '.repeat(900) }, B5: { t: 'n', v: 1 } });
    const { text, sizes } = await printed(await kept(book));
    expect(text.match(/remark\./g)).toHaveLength(900);
    expect(sizes.length).toBeGreaterThan(1);
  });
  test('it is told by what it holds, and an old one is called that', async () => {
    expect(await sortOf(await kept(roll()), 'anything.bin')).toBe('xlsx');
    const old = new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 0, 0]);
    expect([await sortOf(old, 'roll.xls'), await sortOf(old, 'lease.doc')]).toEqual(['old_sheet', 'old_word']);
  });
  test('a deal takes it in, and its words can be found', async () => {
    const server = await TestServer.start();
    try {
      const deal = await server.deal('1 Mill Cut', []);
      const doc = await server.uploadReady(deal.id, 'Rent_roll.xlsx', await kept(roll()));
      expect([doc.name, doc.cameAs, doc.pages.length, doc.status]).toEqual(['Rent roll', 'xlsx', 1, 'ready']);
      const { raw } = await server.call('documentFile', { params: { documentId: doc.id } });
      expect(raw.subarray(0, 2).toString()).toBe('PK');
    } finally {
      await server.stop();
    }
  });
});

/** Returns the file with one of its parts as `change` makes it. */
async function withPart(name: string, change: (xml: string) => string): Promise<Uint8Array> {
  const zip = await JSZip.loadAsync(await kept(roll()));
  zip.file(name, change(await zip.file(name)!.async('string')));
  return zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
}

/** Returns a folder of one part that unpacks to a gigabyte and declares that size. */
function gigabyte(said: number): Uint8Array {
  const name = Buffer.from('xl/workbook.xml');
  const real = 1024 * 1024 * 1024;
  const data = deflateRawSync(Buffer.alloc(real, 0x20), { level: 9 });
  const head = (central: boolean) => {
    const b = Buffer.alloc(central ? 46 : 30);
    b.writeUInt32LE(central ? 0x02014b50 : 0x04034b50, 0);
    const at = central ? 6 : 4;
    b.writeUInt16LE(20, at);
    b.writeUInt16LE(8, at + 4);
    b.writeUInt32LE(data.length, at + 14);
    b.writeUInt32LE(said, at + 18);
    b.writeUInt16LE(name.length, at + 22);
    return b;
  };
  const book = Buffer.concat([head(false), name, data]);
  const central = Buffer.concat([head(true), name]);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(1, 8);
  end.writeUInt16LE(1, 10);
  end.writeUInt32LE(central.length, 12);
  end.writeUInt32LE(book.length, 16);
  return new Uint8Array(Buffer.concat([book, central, end]));
}

describe('files made to hurt', () => {
  const problem = async (bytes: Uint8Array) => {
    const made = await convert(bytes, 'xlsx', 'x');
    return 'problem' in made ? made.problem : 'made';
  };
  test('a gigabyte behind a megabyte is refused before it is unfolded, whatever it says of itself', async () => {
    const before = process.memoryUsage().rss;
    for (const said of [1024 * 1024 * 1024, 1_000]) {
      const bomb = gigabyte(said);
      expect(bomb.length).toBeLessThan(2 * 1024 * 1024);
      expect(await problem(bomb)).toBe('too_many_parts');
    }
    // The gigabyte that the test itself makes is given back, or stays; no second one comes to it.
    expect(process.memoryUsage().rss - before).toBeLessThan(1_900 * 1024 * 1024);
  });
  test('entities are refused', async () => {
    const bomb = await withPart('xl/workbook.xml', (xml) => xml.replace('?>', '?><!DOCTYPE x [<!ENTITY a "aaaa">]>'));
    expect(await problem(bomb)).toBe('external');
  });
  test('one merge, one rule and one name over a whole sheet cost nothing', async () => {
    const all = 'A1:XFD1048576';
    const bomb = await withPart('xl/worksheets/sheet1.xml', (xml) =>
      xml.replace(
        '</sheetData>',
        `</sheetData><mergeCells count="1"><mergeCell ref="${all}"/></mergeCells><dataValidations count="1"><dataValidation type="whole" sqref="${all}"><formula1>1</formula1></dataValidation></dataValidations>`,
      ),
    );
    const zip = await JSZip.loadAsync(bomb);
    const book = await zip.file('xl/workbook.xml')!.async('string');
    zip.file(
      'xl/workbook.xml',
      book.replace(
        '</sheets>',
        `</sheets><definedNames><definedName name="all">'Rent roll'!$A$1:$XFD$1048576</definedName></definedNames>`,
      ),
    );
    const { text } = await printed(await zip.generateAsync({ type: 'uint8array' }));
    expect(text).toContain('1A');
  });
  test('a cell in the last corner of a sheet is too much for a paper; one far down is not', async () => {
    const at = (ref: string) =>
      withPart('xl/worksheets/sheet1.xml', (xml) =>
        xml.replace('</sheetData>', `<row r="1048576"><c r="${ref}" t="str"><v>far</v></c></row></sheetData>`),
      );
    expect(await problem(await at('XFD1048576'))).toBe('too_many_parts');
    const { text, sizes } = await printed(await at('A1048576'));
    expect([text.includes('far'), sizes.length]).toEqual([true, 1]);
  });
  test('more cells than a paper may hold are refused; as many as it may are set', async () => {
    const rows = (count: number) => {
      const book = xlsx.utils.book_new();
      const all = Array.from({ length: count }, (_, i) => ['Lantern Row', i, i * 2, 'paid', 'x', 'y']);
      xlsx.utils.book_append_sheet(book, xlsx.utils.aoa_to_sheet(all), 'All');
      return kept(book);
    };
    expect(await problem(await rows(5_100))).toBe('too_many_parts');
    const { sizes } = await printed(await rows(4_900));
    expect(sizes.length).toBeGreaterThan(50);
  });
  test('a format made to hurt shows the value plainly', async () => {
    const book = roll();
    set(book, { A2: { t: 'n', v: 5, z: '0'.repeat(5_000) }, A3: { t: 'n', v: 6, z: '[$-x]yyyy"' } });
    expect((await printed(await kept(book))).text).toMatch(/5 +\$1,250\.50/);
  });
});
