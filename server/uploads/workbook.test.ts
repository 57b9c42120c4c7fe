/** Spreadsheets as several programs write them, and as none should. */
import JSZip from 'jszip';
import { openArchive, UnfitParts } from '../archives/read';
import { readWorkbook, type WorkbookSheet } from './workbook';

interface Parts {
  sheet: string;
  strings?: string;
  styles?: string;
  workbook?: string;
}
const WORKBOOK = '<workbook xmlns:r="x"><sheets><sheet name="One" r:id="r1"/></sheets></workbook>';
const RELATIONS = '<Relationships><Relationship Id="r1" Target="worksheets/one.xml"/></Relationships>';

async function read({ sheet, strings, styles, workbook }: Parts): Promise<WorkbookSheet[]> {
  const zip = new JSZip();
  zip.file('xl/workbook.xml', workbook ?? WORKBOOK);
  zip.file('xl/_rels/workbook.xml.rels', RELATIONS);
  zip.file('xl/worksheets/one.xml', sheet);
  if (strings) zip.file('xl/sharedStrings.xml', strings);
  if (styles) zip.file('xl/styles.xml', styles);
  const packed = await zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
  return readWorkbook(await openArchive(packed, { bytes: Infinity, parts: 10 }), { cells: 1_000, letters: 100_000 });
}
/** Returns what the only sheet holds: rows of "column value". */
const values = async (parts: Parts) => {
  const [sheet] = await read(parts);
  return sheet!.rows.map((r) => [r.number, ...[...r.cells].map(([column, cell]) => `${column} ${String(cell.value)}`)]);
};
const inSheet = (rows: string, before = '') => `<worksheet>${before}<sheetData>${rows}</sheetData></worksheet>`;
const cell = (inner: string, kind = 'n') => inSheet(`<row r="1"><c r="A1" t="${kind}">${inner}</c></row>`);

test.each([
  ['a number', cell('<v>1.5</v>'), '1 1.5'],
  ['yes', cell('<v>1</v>', 'b'), '1 true'],
  ['an error', cell('<v>#DIV/0!</v>', 'e'), '1 #DIV/0!'],
  ['an inline text of runs', cell('<is><r><t>Lan</t></r><r><t>tern</t></r></is>', 'inlineStr'), '1 Lantern'],
  ['a text in a section', cell('<v><![CDATA[a < b]]></v>', 'str'), '1 a < b'],
  ['a text with an escaped character', cell('<v>a_x0041_b</v>', 'str'), '1 aAb'],
  ['a formula without a result', cell('<f>A2</f>'), '1 (not worked out)'],
  ['a formula with an empty result', cell('<f>A2</f><v></v>'), '1 (not worked out)'],
  ['a formula that came to nought', cell('<f>A2</f><v>0</v>'), '1 0'],
])('%s', async (_, sheet, expected) => {
  expect(await values({ sheet })).toEqual([[1, expected]]);
});

test('a formula that came to an empty text, and a text that is not listed, are empty', async () => {
  expect(await values({ sheet: cell('<f>A2</f><v></v>', 'str') })).toEqual([]);
  expect(await values({ sheet: cell('<v>7</v>', 's') })).toEqual([]);
});

test('listed texts keep their runs and leave out reading aids', async () => {
  const strings = '<sst><si><t>One</t></si><si><r><t>Tw</t></r><rPh><t>TSU</t></rPh><r><t>o</t></r></si></sst>';
  expect(await values({ sheet: cell('<v>1</v>', 's'), strings })).toEqual([[1, '1 Two']]);
});

test('names may have prefixes, and places may be left out', async () => {
  const sheet =
    '<x:worksheet><x:sheetData><x:row><x:c><x:v>1</x:v></x:c><x:c r="D1"><x:v>2</x:v></x:c><x:c><x:v>3</x:v></x:c></x:row><x:row><x:c><x:v>4</x:v></x:c></x:row></x:sheetData></x:worksheet>';
  expect(await values({ sheet })).toEqual([
    [1, '1 1', '4 2', '5 3'],
    [2, '1 4'],
  ]);
});

test('hidden rows, columns and sheets are left out; rows stand in their order', async () => {
  const sheet = inSheet(
    '<row r="3"><c r="A3"><v>3</v></c><c r="B3"><v>9</v></c></row><row r="2" hidden="1"><c r="A2"><v>2</v></c></row><row r="1"><c r="A1"><v>1</v></c></row>',
    '<cols><col min="2" max="4" width="20" hidden="true"/><col min="1" max="1" width="12.5"/></cols>',
  );
  const [one] = await read({ sheet });
  expect(one!.rows.map((r) => [r.number, [...r.cells.keys()]])).toEqual([
    [1, [1]],
    [3, [1]],
  ]);
  expect([one!.widths.get(1), one!.widths.get(4), [...one!.hidden]]).toEqual([12.5, 20, [2, 3, 4]]);
  for (const state of ['hidden', 'veryHidden'])
    expect(await read({ sheet, workbook: WORKBOOK.replace('r:id', `state="${state}" r:id`) })).toEqual([]);
});

const STYLES = `<styleSheet><numFmts><numFmt numFmtId="164" formatCode="d mmm"/></numFmts>
<fonts><font/><font><b/></font><font><b val="0"/></font></fonts>
<borders><border/><border><left style="thin"/><right/><top style="none"/><bottom style="medium"/></border></borders>
<cellStyleXfs><xf fontId="1"><alignment horizontal="left"/></xf></cellStyleXfs>
<cellXfs><xf/><xf numFmtId="164" fontId="1" borderId="1"><alignment horizontal="center"/></xf><xf numFmtId="14" fontId="2"><alignment horizontal="fill"/></xf></cellXfs>
<dxfs><dxf><font><b/></font><border><left style="thin"/></border></dxf></dxfs></styleSheet>`;

test('styles of cells are those of the list for cells, and no other', async () => {
  const sheet = inSheet(
    '<row><c s="0"><v>1</v></c><c s="1"><v>1</v></c><c s="2"><v>1</v></c><c s="99"><v>1</v></c></row>',
  );
  const [one] = await read({ sheet, styles: STYLES });
  const none = [false, false, false, false];
  expect([...one!.rows[0]!.cells.values()].map((c) => c.style)).toEqual([
    { format: 'General', isDay: false, alignment: null, bold: false, border: none },
    { format: 'd mmm', isDay: true, alignment: 'center', bold: true, border: [true, false, false, true] },
    { format: 'm/d/yyyy', isDay: true, alignment: null, bold: false, border: none },
    { format: 'General', isDay: false, alignment: null, bold: false, border: none },
  ]);
});

test('days are counted from 1900 or 1904 as the file says, and written days become numbers', async () => {
  const sheet = inSheet('<row><c s="1"><v>10</v></c><c s="0"><v>10</v></c></row>');
  expect(await values({ sheet, styles: STYLES })).toEqual([[1, '1 10', '2 10']]);
  const workbook = WORKBOOK.replace('<sheets>', '<workbookPr date1904="1"/><sheets>');
  expect(await values({ sheet, styles: STYLES, workbook })).toEqual([[1, '1 1472', '2 10']]);
  const written = inSheet('<row><c s="1" t="d"><v>1970-01-03</v></c><c t="d"><v>1970-01-03</v></c></row>');
  expect(await values({ sheet: written, styles: STYLES })).toEqual([[1, '1 25571', '2 1970-01-03']]);
});

test('a sheet that lies is said to', async () => {
  const [one] = await read({ sheet: '<worksheet><sheetData/><pageSetup orientation="landscape"/></worksheet>' });
  expect([one!.landscape, one!.rows]).toEqual([true, []]);
});

const many = (n: number, one: (i: number) => string) => Array.from({ length: n }, (_, i) => one(i)).join('');
test.each([
  ['a row beyond the last', inSheet('<row r="1048577"><c><v>1</v></c></row>')],
  ['a column beyond the last', inSheet('<row><c r="XFE1"><v>1</v></c></row>')],
  ['a column of a thousand letters', inSheet(`<row><c r="${'A'.repeat(25)}1"><v>1</v></c></row>`)],
  ['a row of twenty digits', inSheet(`<row><c r="A${'9'.repeat(20)}"><v>1</v></c></row>`)],
  ['columns described again and again', inSheet('', `<cols>${many(3, () => '<col min="1" max="16384"/>')}</cols>`)],
  ['more cells than a row has', inSheet(`<row>${many(16_385, () => '<c/>')}</row>`)],
  ['elements within elements', inSheet(`${many(100_000, () => '<a>')}${many(100_000, () => '</a>')}`)],
  ['more cells than allowed', inSheet(many(1_001, () => '<row><c><v>1</v></c></row>'))],
  ['more letters than allowed', inSheet(many(2, () => `<row><c t="str"><v>${'x'.repeat(60_000)}</v></c></row>`))],
  ['an entity', `<!DOCTYPE a [<!ENTITY b "c">]>${inSheet('')}`],
])('%s is refused', async (_, sheet) => {
  await expect(read({ sheet })).rejects.toBeInstanceOf(UnfitParts);
});

test('what is no workbook, or has no sheets, is an error', async () => {
  for (const workbook of ['<x/>', WORKBOOK.replace(/<sheet .*?\/>/, '')])
    await expect(read({ sheet: inSheet(''), workbook })).rejects.toThrow('no sheets');
});

test('a sheet cut off is an error, and none of it is taken', async () => {
  await expect(read({ sheet: '<worksheet><sheetData><row><c><v>1</v></c>' })).rejects.toThrow(/unclosed tag/);
});
