/**
 * Labelled blanks for forms written in three ways. Each blank is a link whose address is its
 * label, so the producer itself says where the blank came to lie; the links are taken out of
 * the file afterwards.
 */
import type { Labelled } from './types';

export const LABEL = 'https://label.test/';

/** Returns the address of a blank: kind, role and ordinal ("-" where there is none). */
export function label(kind: string, role = '-', ordinal: number | '-' = '-'): string {
  return `${LABEL}${kind}/${role}/${ordinal}`;
}

/** Returns HTML: a blank of underscores. */
export const us = (n: number, kind: string, role?: string, o?: number) =>
  `<a href="${label(kind, role, o)}">${'_'.repeat(n)}</a>`;
/** Returns HTML: a blank ruled by a border, of a width in points. */
export const rule = (w: number, kind: string, role?: string, o?: number) =>
  `<a class="rule" style="width:${w}pt" href="${label(kind, role, o)}">&nbsp;</a>`;
/** Returns HTML and library forms: a blank of any words. */
export const link = (text: string, kind: string, role?: string, o?: number) =>
  `<a href="${label(kind, role, o)}">${text}</a>`;
/** Returns HTML: a tinted field; the form's own style says how it looks. */
export const field = (w: number, kind: string, role?: string, o?: number) =>
  `<a class="field" style="width:${w}pt" href="${label(kind, role, o)}">&nbsp;</a>`;
/** Returns a blank that cannot carry a link, measured by hand. */
export const by = (page: number, kind: string, role: string, ordinal: number, rect: Labelled['rect']): Labelled => ({
  page,
  kind,
  role,
  ordinal,
  rect,
});
/** Returns HTML: a box to tick. */
export const box = (kind = 'checkbox') => `<a class="box" href="${label(kind)}">&nbsp;</a>`;
/** Returns HTML: an empty table cell. */
export const cell = (kind: string, role?: string, o?: number, more = '') =>
  `<td ${more}><a class="fill" href="${label(kind, role, o)}">&nbsp;</a></td>`;

/** Returns text escaped for flat ODT. */
const esc = (s: string) => s.replace(/&/g, '&amp;').replace(/</g, '&lt;');
export const odt = {
  us: (n: number, kind: string, role?: string, o?: number) => odt.link('_'.repeat(n), kind, role, o),
  tab: (kind: string, role?: string, o?: number) =>
    `<text:a xlink:type="simple" xlink:href="${label(kind, role, o)}" text:style-name="Plain" text:visited-style-name="Plain"><text:span text:style-name="Plain"><text:tab/></text:span></text:a>`,
  link: (text: string, kind: string, role?: string, o?: number) =>
    `<text:a xlink:type="simple" xlink:href="${label(kind, role, o)}" text:style-name="Plain" text:visited-style-name="Plain"><text:span text:style-name="Plain">${esc(text)}</text:span></text:a>`,
  p: (body: string, style = 'P') => `<text:p text:style-name="${style}">${body}</text:p>`,
  t: esc,
  row: (cells: string[]) =>
    `<table:table-row>${cells.map((c) => `<table:table-cell table:style-name="C"><text:p text:style-name="T">${c}</text:p></table:table-cell>`).join('')}</table:table-row>`,
  table: (widths: number, rows: string[]) =>
    `<table:table table:name="T" table:style-name="Tab"><table:table-column table:number-columns-repeated="${widths}"/>${rows.join('')}</table:table>`,
  doc: (body: string) => `<?xml version="1.0" encoding="UTF-8"?>
<office:document xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0" xmlns:xlink="http://www.w3.org/1999/xlink" office:version="1.3" office:mimetype="application/vnd.oasis.opendocument.text">
<office:styles><style:style style:name="Plain" style:family="text"><style:text-properties fo:color="#000000" style:text-underline-style="none"/></style:style></office:styles>
<office:automatic-styles>
<style:style style:name="P" style:family="paragraph"><style:paragraph-properties fo:margin-bottom="0.09in"><style:tab-stops><style:tab-stop style:position="3.9in" style:leader-style="solid" style:leader-text="_"/><style:tab-stop style:position="4.15in"/><style:tab-stop style:position="6.4in" style:leader-style="solid" style:leader-text="_"/></style:tab-stops></style:paragraph-properties><style:text-properties fo:font-size="11pt"/></style:style>
<style:style style:name="D" style:family="paragraph"><style:paragraph-properties fo:margin-bottom="0.09in"><style:tab-stops><style:tab-stop style:position="6.4in" style:type="right" style:leader-style="dotted" style:leader-text="."/></style:tab-stops></style:paragraph-properties><style:text-properties fo:font-size="11pt"/></style:style>
<style:style style:name="S" style:family="paragraph"><style:paragraph-properties fo:margin-bottom="0.02in" fo:margin-top="0.02in"><style:tab-stops><style:tab-stop style:position="4.15in"/></style:tab-stops></style:paragraph-properties><style:text-properties fo:font-size="9pt"/></style:style>
<style:style style:name="G" style:family="paragraph"><style:paragraph-properties fo:margin-bottom="0.02in" fo:margin-top="0.3in"><style:tab-stops><style:tab-stop style:position="3.9in" style:leader-style="solid" style:leader-text="_"/><style:tab-stop style:position="4.15in"/><style:tab-stop style:position="6.4in" style:leader-style="solid" style:leader-text="_"/></style:tab-stops></style:paragraph-properties><style:text-properties fo:font-size="11pt"/></style:style>
<style:style style:name="H" style:family="paragraph"><style:paragraph-properties fo:margin-bottom="0.1in" fo:margin-top="0.18in"/><style:text-properties fo:font-size="13pt" fo:font-weight="bold"/></style:style>
<style:style style:name="U" style:family="paragraph"><style:paragraph-properties fo:margin-bottom="0.12in" fo:border-bottom="0.75pt solid #000000"/><style:text-properties fo:font-size="16pt" fo:font-weight="bold"/></style:style>
<style:style style:name="T" style:family="paragraph"><style:text-properties fo:font-size="10pt"/></style:style>
<style:style style:name="Tab" style:family="table"><style:table-properties style:width="6.5in"/></style:style>
<style:style style:name="C" style:family="table-cell"><style:table-cell-properties fo:border="0.5pt solid #000000" fo:padding="0.06in"/></style:style>
<style:page-layout style:name="L"><style:page-layout-properties fo:page-width="8.5in" fo:page-height="11in" fo:margin="0.9in"/></style:page-layout>
</office:automatic-styles>
<office:master-styles><style:master-page style:name="Standard" style:page-layout-name="L"/></office:master-styles>
<office:body><office:text>${body}</office:text></office:body></office:document>`,
};

/** Returns a web page for printing. */
export const html = (body: string, css = '') => `<!doctype html><meta charset="utf-8"><style>
body{font:11pt "DejaVu Serif",serif;margin:0;color:#111}a{color:inherit;text-decoration:none}
h1{font-size:17pt;margin:0 0 8pt}h2{font-size:12.5pt;margin:14pt 0 6pt}p{margin:0 0 7pt;line-height:1.45}
.rule{display:inline-block;border-bottom:1px solid #222;height:1.1em}.box{display:inline-block;width:9pt;height:9pt;border:1px solid #222;vertical-align:-1pt;line-height:9pt;overflow:hidden}
table{border-collapse:collapse;width:100%}td,th{border:1px solid #333;padding:4pt 5pt;text-align:left;font-size:10pt}
.fill{display:block;height:20pt}.small{font-size:8.5pt;color:#333}${css}</style>${body}`;
