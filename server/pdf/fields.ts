/** The form fields of a PDF, as pdf.js reads its widgets. */
import type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { FormField } from '@gatepath/core/reading';
import { itemAt } from '@gatepath/core/sure';

interface Widget {
  subtype?: string;
  fieldType?: string;
  fieldName?: string;
  alternativeText?: string;
  rect: number[];
  hidden?: boolean;
  noView?: boolean;
  readOnly?: boolean;
  required?: boolean;
  multiLine?: boolean;
  maxLen?: number | null;
  checkBox?: boolean;
  radioButton?: boolean;
  pushButton?: boolean;
  exportValue?: string;
  buttonValue?: string | null;
  options?: { displayValue?: string; exportValue?: string }[];
  fieldValue?: unknown;
}

/** Bit of a field's flags (ISO 32000-1, table 221). */
const REQUIRED = 2;

/** Returns every visible widget of a document, with its rectangle as displayed. */
export async function formFields(doc: PDFDocumentProxy, from = 1, to = doc.numPages): Promise<FormField[]> {
  const out: FormField[] = [];
  for (let n = from; n <= to; n++) {
    const page = await doc.getPage(n);
    const view = page.getViewport({ scale: 1 });
    for (const raw of (await page.getAnnotations({ intent: 'display' })) as (Widget & { fieldFlags?: number })[]) {
      if (raw.subtype !== 'Widget' || raw.hidden || raw.noView) continue;
      const [ax = 0, ay = 0]: number[] = view.convertToViewportPoint(itemAt(raw.rect, 0), itemAt(raw.rect, 1));
      const [bx = 0, by = 0]: number[] = view.convertToViewportPoint(itemAt(raw.rect, 2), itemAt(raw.rect, 3));
      const r1 = (v: number) => Math.round(v * 10) / 10;
      const value = raw.fieldValue;
      const filled =
        raw.checkBox || raw.radioButton
          ? !!value && value !== 'Off'
          : Array.isArray(value)
            ? value.some(Boolean)
            : typeof value === 'string' && value.trim() !== '';
      out.push({
        page: n,
        rect: { x: r1(Math.min(ax, bx)), y: r1(Math.min(ay, by)), w: r1(Math.abs(bx - ax)), h: r1(Math.abs(by - ay)) },
        type:
          raw.fieldType === 'Sig'
            ? 'signature'
            : raw.fieldType === 'Ch'
              ? 'list'
              : raw.fieldType === 'Btn'
                ? raw.pushButton
                  ? 'button'
                  : raw.radioButton
                    ? 'radio'
                    : 'tick'
                : 'text',
        name: raw.fieldName ?? '',
        tooltip: raw.alternativeText ?? '',
        required: raw.required ?? ((raw.fieldFlags ?? 0) & REQUIRED) !== 0,
        readOnly: !!raw.readOnly,
        multiline: !!raw.multiLine,
        maxLength: raw.maxLen || null,
        options:
          raw.options?.map((o) => o.displayValue ?? o.exportValue ?? '').filter(Boolean) ??
          (raw.exportValue || raw.buttonValue ? [String(raw.exportValue ?? raw.buttonValue)] : []),
        filled,
      });
    }
    page.cleanup();
  }
  return out;
}
