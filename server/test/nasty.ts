/** PDFs made to hurt, written by hand byte for byte. */
import { deflateSync } from 'node:zlib';

/** A PDF of numbered objects; a cross-reference table is not needed by readers that mend. */
export function rawPdf(objects: (string | { dict: string; data: Uint8Array })[], root = 1): Uint8Array {
  const parts: Buffer[] = [Buffer.from('%PDF-1.7\n')];
  const offsets: number[] = [];
  let at = parts[0]!.length;
  const push = (b: Buffer) => {
    parts.push(b);
    at += b.length;
  };
  objects.forEach((o, i) => {
    offsets.push(at);
    if (typeof o === 'string') push(Buffer.from(`${i + 1} 0 obj\n${o}\nendobj\n`, 'latin1'));
    else {
      push(Buffer.from(`${i + 1} 0 obj\n<< /Length ${o.data.length} ${o.dict} >>\nstream\n`, 'latin1'));
      push(Buffer.from(o.data));
      push(Buffer.from('\nendstream\nendobj\n'));
    }
  });
  const xref = at;
  const rows = offsets.map((n) => `${String(n).padStart(10, '0')} 00000 n \n`).join('');
  push(
    Buffer.from(
      `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${rows}trailer\n<< /Size ${objects.length + 1} /Root ${root} 0 R >>\nstartxref\n${xref}\n%%EOF\n`,
    ),
  );
  return new Uint8Array(Buffer.concat(parts));
}

export const stream = (text: string | Uint8Array, dict = '', pack = true) => {
  const data = typeof text === 'string' ? Buffer.from(text, 'latin1') : Buffer.from(text);
  return pack
    ? { dict: `/Filter /FlateDecode ${dict}`, data: new Uint8Array(deflateSync(data)) }
    : { dict, data: new Uint8Array(data) };
};

/** One page with these contents and resources; more objects begin at number 5. */
export function onePage(
  content: string | { dict: string; data: Uint8Array },
  resources = '',
  more: (string | { dict: string; data: Uint8Array })[] = [],
  page = '',
  catalog = '',
): Uint8Array {
  return rawPdf([
    `<< /Type /Catalog /Pages 2 0 R ${catalog} >>`,
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    `<< /Type /Page /Parent 2 0 R ${page.includes('/MediaBox') ? '' : '/MediaBox [0 0 612 792]'} /Contents 4 0 R /Resources << ${resources} >> ${page} >>`,
    typeof content === 'string' ? stream(content) : content,
    ...more,
  ]);
}

/** A form that draws itself, twice. */
export const selfDrawing = () =>
  onePage('/F Do', '/XObject << /F 5 0 R >>', [
    stream(
      '/F Do /F Do',
      '/Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << /XObject << /F 5 0 R >> >>',
      false,
    ),
  ]);

/** Two million strokes in a packed stream. */
export const twoMillionStrokes = () => onePage(stream('0 0 m 9 9 l S\n'.repeat(2_000_000)));

/** Forms that draw forms that draw forms: ten to the ninth. */
export const multiplying = () =>
  onePage(
    '/F Do',
    '/XObject << /F 5 0 R >>',
    Array.from({ length: 9 }, (_, i) =>
      stream(
        i < 8 ? '/F Do '.repeat(10) : '0 0 m 9 9 l S',
        `/Type /XObject /Subtype /Form /BBox [0 0 9 9] ${i < 8 ? `/Resources << /XObject << /F ${6 + i} 0 R >> >>` : ''}`,
        false,
      ),
    ),
  );

/** A content stream that unpacks to 400 MB of blanks. */
export const bomb = () => onePage(stream(new Uint8Array(400 * 1024 * 1024).fill(32)));
