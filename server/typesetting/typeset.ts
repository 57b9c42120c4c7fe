/** Typesetting PDF with pdfmake, for documents that were DOCX or plain text. */
import { createRequire } from 'node:module';
import path from 'node:path';

const require = createRequire(import.meta.url);

/** A pdfmake document definition; pdfmake has no types of its own. */
export interface PaperDefinition {
  content: unknown;
  defaultStyle?: Record<string, unknown>;
  styles?: Record<string, unknown>;
  pageSize?: string | { width: number; height: number };
  pageMargins?: number[];
  pageOrientation?: 'portrait' | 'landscape';
  info?: { title?: string; creationDate?: Date; modDate?: Date };
  footer?: unknown;
  pageBreakBefore?: unknown;
}

interface PdfMake {
  setFonts(fonts: Record<string, Record<string, string>>): void;
  setUrlAccessPolicy?(policy: () => boolean): void;
  setLocalAccessPolicy?(policy: (file: string) => boolean): void;
  createPdf(def: PaperDefinition): { getBuffer(): Promise<Buffer> };
}

/** What this module needs of pdfmake's document, and of a font embedded in it. */
interface PdfMakeDocument {
  prototype: {
    getFontFile(family: string, bold: boolean, italics: boolean): string;
    provideFont(family: string, bold: boolean, italics: boolean): EmbeddedFont;
  };
}
interface ParsedFont {
  createSubset(): unknown;
}
interface EmbeddedFont {
  font: ParsedFont;
  subset: unknown;
}

/**
 * Shares parsed fonts between all documents of this process. pdfmake parses a font for every document, which takes
 * most of the time of a short one; only the subset belongs to a document.
 */
function shareFonts({ prototype }: PdfMakeDocument): void {
  const provide = prototype.provideFont;
  const parsed = new Map<string, ParsedFont>();
  prototype.provideFont = function (family, bold, italics) {
    const embedded = provide.call(this, family, bold, italics);
    const file = this.getFontFile(family, bold, italics);
    const known = parsed.get(file);
    if (!known) parsed.set(file, embedded.font);
    else if (embedded.font !== known) {
      embedded.font = known;
      embedded.subset = known.createSubset();
    }
    return embedded;
  };
}

let made: Promise<PdfMake> | null = null;

const fontFile = (pkg: string, file: string) => path.join(path.dirname(require.resolve(`${pkg}/package.json`)), file);

async function pdfmake(): Promise<PdfMake> {
  made ??= (async () => {
    const pm: PdfMake = require('pdfmake');
    const { default: Document }: { default: PdfMakeDocument } = require('pdfmake/js/PDFDocument');
    shareFonts(Document);
    const noto = '@expo-google-fonts/noto-sans';
    pm.setFonts({
      Noto: {
        normal: fontFile(noto, '400Regular/NotoSans_400Regular.ttf'),
        bold: fontFile(noto, '700Bold/NotoSans_700Bold.ttf'),
        italics: fontFile(noto, '400Regular_Italic/NotoSans_400Regular_Italic.ttf'),
        bolditalics: fontFile(noto, '700Bold_Italic/NotoSans_700Bold_Italic.ttf'),
      },
    });
    // A paper never makes the server fetch or read anything.
    pm.setUrlAccessPolicy?.(() => false);
    const own = path.dirname(require.resolve(`${noto}/package.json`));
    pm.setLocalAccessPolicy?.((file) => path.resolve(file).startsWith(own));
    return pm;
  })();
  return made;
}

/** Returns a PDF of a pdfmake definition, in Noto Sans. */
export async function printDefinition(def: PaperDefinition): Promise<Uint8Array> {
  const pm = await pdfmake();
  const doc = pm.createPdf({ ...def, defaultStyle: { font: 'Noto', ...def.defaultStyle } });
  return new Uint8Array(await doc.getBuffer());
}
