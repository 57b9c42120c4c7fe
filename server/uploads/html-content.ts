/** Converting the plain HTML of a DOCX to pdfmake content. */
import { parseFragment, type DefaultTreeAdapterMap } from 'parse5';
import { itemAt } from '@gatepath/core/sure';

type Node = DefaultTreeAdapterMap['node'];
type Element = DefaultTreeAdapterMap['element'];
type Content = Record<string, unknown>;

interface Style {
  bold?: boolean;
  italics?: boolean;
  decoration?: string;
  sup?: boolean;
  sub?: boolean;
}

const HEADINGS: Record<string, number> = { h1: 19, h2: 15.5, h3: 13.5, h4: 12, h5: 11.5, h6: 11 };

/** Returns blocks of content, in order. Unknown elements yield their text. */
export function htmlContent(html: string): Content[] {
  return blocks(parseFragment(html).childNodes, {});
}

const isElement = (n: Node): n is Element => 'tagName' in n;
const attr = (e: Element, name: string) => e.attrs.find((a) => a.name === name)?.value;

function blocks(nodes: Node[], style: Style): Content[] {
  const out: Content[] = [];
  let run: Content[] = [];
  const flush = () => {
    if (run.length) out.push({ text: run, margin: [0, 0, 0, 7], preserveLeadingSpaces: true });
    run = [];
  };
  for (const n of nodes) {
    const block = isElement(n) ? blockOf(n, style) : null;
    if (block) {
      flush();
      out.push(...block);
    } else run.push(...inline(n, style));
  }
  flush();
  return out;
}

function blockOf(e: Element, style: Style): Content[] | null {
  const tag = e.tagName;
  if (tag in HEADINGS)
    return [
      {
        text: e.childNodes.flatMap((n) => inline(n, style)),
        fontSize: HEADINGS[tag],
        bold: true,
        margin: [0, 10, 0, 6],
      },
    ];
  switch (tag) {
    case 'p': {
      const pictures = images(e);
      const text = e.childNodes.flatMap((n) => inline(n, style));
      return [...(text.length ? [{ text, margin: [0, 0, 0, 7], preserveLeadingSpaces: true }] : []), ...pictures];
    }
    case 'ul':
    case 'ol': {
      const items = e.childNodes.filter(isElement).map((li) => {
        const inner = blocks(li.childNodes, style);
        return inner.length === 1 ? itemAt(inner, 0) : { stack: inner };
      });
      return [{ [tag]: items, margin: [0, 0, 0, 6] }];
    }
    case 'table':
      return [table(e, style)];
    case 'div':
    case 'section':
    case 'blockquote':
      return blocks(e.childNodes, style);
    case 'img':
      return images(e);
    case 'hr':
      return [{ canvas: [{ type: 'line', x1: 0, y1: 4, x2: 480, y2: 4, lineWidth: 0.7 }], margin: [0, 4, 0, 8] }];
    default:
      return null;
  }
}

function inline(n: Node, style: Style): Content[] {
  if (n.nodeName === '#text') {
    const text = 'value' in n ? n.value : '';
    return text ? [{ text: text.replace(/\t/g, '    '), ...style }] : [];
  }
  if (!isElement(n)) return [];
  const deeper = (more: Style) => n.childNodes.flatMap((c) => inline(c, { ...style, ...more }));
  switch (n.tagName) {
    case 'strong':
    case 'b':
      return deeper({ bold: true });
    case 'em':
    case 'i':
      return deeper({ italics: true });
    case 'u':
      return deeper({ decoration: 'underline' });
    case 's':
      return deeper({ decoration: 'lineThrough' });
    case 'sup':
      return deeper({ sup: true });
    case 'sub':
      return deeper({ sub: true });
    case 'br':
      return [{ text: '\n' }];
    case 'input':
      return [{ text: attr(n, 'checked') === undefined ? '[   ]' : '[ x ]' }];
    case 'img':
      return [];
    default:
      return deeper({});
  }
}

/** Returns pictures inside an element that a PDF can contain unchanged. */
function images(e: Element): Content[] {
  const src = e.tagName === 'img' ? attr(e, 'src') : undefined;
  const own =
    src && /^data:image\/(?:png|jpe?g);base64,/.test(src)
      ? [{ image: src, fit: [470, 600], margin: [0, 2, 0, 8] }]
      : [];
  return [...own, ...e.childNodes.filter(isElement).flatMap(images)];
}

function table(e: Element, style: Style): Content {
  const rows: Element[] = [];
  const collect = (n: Element) => {
    for (const c of n.childNodes.filter(isElement)) {
      if (c.tagName === 'tr') rows.push(c);
      else if (c.tagName !== 'table') collect(c);
    }
  };
  collect(e);
  // Cells that span rows take their column in the rows below.
  const taken: number[] = [];
  const body = rows.map((tr) => {
    const cells: Content[] = [];
    const fill = () => {
      while ((taken[cells.length] ?? 0) > 0) {
        taken[cells.length]!--;
        cells.push({ text: '' });
      }
    };
    for (const td of tr.childNodes.filter(isElement)) {
      fill();
      const across = Math.max(1, Number(attr(td, 'colspan') ?? 1) || 1);
      const down = Math.max(1, Number(attr(td, 'rowspan') ?? 1) || 1);
      const inner = blocks(td.childNodes, td.tagName === 'th' ? { ...style, bold: true } : style);
      const cell: Content =
        inner.length === 0
          ? { text: ' ' }
          : inner.length === 1
            ? { ...itemAt(inner, 0), margin: [0, 2, 0, 2] }
            : { stack: inner };
      if (across > 1) cell['colSpan'] = across;
      if (down > 1) cell['rowSpan'] = down;
      for (let i = 0; i < across; i++) {
        if (down > 1) taken[cells.length] = down - 1;
        cells.push(i === 0 ? cell : { text: '' });
      }
    }
    fill();
    return cells;
  });
  const width = Math.max(1, ...body.map((r) => r.length));
  for (const r of body) while (r.length < width) r.push({ text: '' });
  return {
    table: { widths: Array.from({ length: width }, () => '*'), body: body.length ? body : [[{ text: ' ' }]] },
    margin: [0, 4, 0, 10],
  };
}
