/** From the fields of an AcroForm to places: kind and role by type, name and tooltip. */
import type { Rect } from '../paper/types';
import type { PlaceKind, PrintedPlace } from './types';
import { kindOfWords, roleOfWords } from './words';

/** A widget of a form, with its rectangle as displayed. */
export interface FormField {
  page: number;
  rect: Rect;
  type: 'text' | 'signature' | 'tick' | 'radio' | 'list' | 'button';
  name: string;
  tooltip: string;
  required: boolean;
  readOnly: boolean;
  multiline: boolean;
  maxLength: number | null;
  options: string[];
  /** Whether it has a value already; that value stays on the page. */
  filled: boolean;
}

/** Returns the words of a field's name: "topmost Seller 1 Signature Date" of "topmost.Seller1_SignatureDate[0]". */
export function wordsOfName(name: string): string {
  return name
    .replace(/\[\d+\]/g, ' ')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/([A-Z])(?=[A-Z][a-z])/g, '$1 ')
    .replace(/([A-Za-z])(\d)/g, '$1 $2')
    .replace(/(\d)([A-Za-z])/g, '$1 $2')
    .replace(/[_.\-/#:]+/g, ' ')
    .replace(/\b(?:sig|sgn|sign)\b/gi, 'signature')
    .replace(/\b(?:init|ini|inits|initial)\b/gi, 'initials')
    .replace(/\bdt\b/gi, 'date')
    .replace(/\s+/g, ' ')
    .trim();
}

/** Returns the place of a field; null for buttons and fields that nobody can fill. */
export function placeOfField(f: FormField): PrintedPlace | null {
  if (f.type === 'button' || f.readOnly) return null;
  // The last part of a dotted name is the field's own; the others name its groups.
  const own = wordsOfName(f.name.split('.').pop() ?? f.name);
  const words = [f.tooltip, own].filter(Boolean);
  const named = words.map(kindOfWords).find((k) => k !== null) ?? null;
  const initial = words.some((w) => kindOfWords(w) === 'initials');
  const kind: PlaceKind =
    f.type === 'signature'
      ? initial
        ? 'initials'
        : 'signature'
      : f.type === 'tick' || f.type === 'radio'
        ? 'checkbox'
        : f.type === 'list' || f.multiline
          ? 'text'
          : (named ?? 'text');
  const role = words.map((w) => roleOfWords(w)).find((r) => r !== null) ?? roleOfWords(wordsOfName(f.name)) ?? null;
  return {
    page: f.page,
    kind,
    role: role?.role ?? 'unknown',
    ordinal: role ? (role.ordinal ?? 1) : null,
    rect: f.rect,
    label: (f.tooltip || own || f.name).slice(0, 120),
    source: 'acroform',
    confidence: f.type === 'text' ? (named ? 0.95 : 0.85) : 0.97,
    field: {
      name: f.name,
      required: f.required,
      multiline: f.multiline,
      maxLength: f.maxLength,
      options: f.options,
      group: f.type === 'radio' ? f.name : null,
      readOnly: f.readOnly,
    },
  };
}
