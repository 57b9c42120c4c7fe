/** Reading a bundle of forms and kits in a worker: nothing in it is believed before it is validated. */
import { editsBody, type BodySize } from '@gatepath/contract';
import { shapeProblem } from '../json-shape';
import { applyEdits, emptyDraft, overLimit, PACKET_LIMITS, type Draft, type DraftEdit } from '@gatepath/core/packet';
import { DOCUMENT_TYPES, type DocumentType } from '@gatepath/core/reading';
import { cutEnd, isClean, oneLine } from '@gatepath/core/text';
import { UnfitText, writtenFrom, type Written } from '@gatepath/core/writing';
import { keysOf } from '@gatepath/core/sure';
import { openArchive, UnfitParts } from '../archives/read';

/** Format name of a bundle. */
export const BUNDLE_FORMAT = 'gate-path-shelf/1';
/** Name of a bundle's manifest. */
export const MANIFEST = 'bundle.json';

/** Maximum contents of one bundle. */
const MOST_FORMS = 60;
const MOST_KITS = 60;
const MOST_ENTRIES = 200;
/** Maximum bytes of the manifest, and of all papers unpacked. */
const MANIFEST_SIZE: BodySize = { bytes: 16 * 1024 * 1024, values: 1_000_000, depth: 60 };
const PAPERS_BYTES = 200 * 1024 * 1024;
const MOST_NAME = 120;
/** Number of edits validated at once. */
const PORTION = 2_000;

/** A form of a bundle. */
export interface BundleForm {
  /** As the bundle's kits and its own draft's document name it. */
  id: string;
  name: string;
  type: DocumentType;
  draft: Draft;
  written: Written | null;
  /** The PDF; null for a written form. */
  paper: Uint8Array | null;
}
/** A kit of a bundle. */
export interface BundleKit {
  name: string;
  draft: Draft;
  lastIn: number | null;
}
/** A bundle as it was read. */
export interface Bundle {
  forms: BundleForm[];
  kits: BundleKit[];
}

/** A bundle cannot be used; its message is the sentence for the sender. */
class Unfit extends Error {}

/** Reads a bundle, or returns the sentence that says why it cannot be used. */
export async function readBundle(bytes: Uint8Array): Promise<Bundle | { problem: string }> {
  try {
    return await read(bytes);
  } catch (error) {
    if (error instanceof Unfit) return { problem: error.message };
    if (error instanceof UnfitParts) return { problem: 'The bundle unfolds to more than can be taken.' };
    if (error instanceof UnfitText) return { problem: `A text in the bundle cannot be taken: ${error.message}` };
    return { problem: 'This file is damaged, or no bundle of forms. Ask for it once more.' };
  }
}

async function read(bytes: Uint8Array): Promise<Bundle> {
  const parts = await openArchive(bytes, { bytes: MANIFEST_SIZE.bytes + PAPERS_BYTES, parts: MOST_ENTRIES });
  const raw = parts.get(MANIFEST);
  if (!raw) throw new Unfit(`There is no ${MANIFEST} in it, so this is no bundle of forms.`);
  const manifest = await raw.bytes(MANIFEST_SIZE.bytes);
  if (shapeProblem(manifest, MANIFEST_SIZE)) throw new Unfit('The bundle says too much of itself at once.');
  const top = bagOf(JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(manifest)));
  if (top['format'] !== BUNDLE_FORMAT) throw new Unfit('This bundle is of a version that cannot be read here.');
  const forms: BundleForm[] = [];
  let left = PAPERS_BYTES;
  // Everything the manifest says is validated before a paper is unpacked.
  const said = listOf(top['forms'], MOST_FORMS, 'forms').map(formOf);
  const ids = new Set(said.map((f) => f.id));
  if (ids.size !== said.length) throw new Unfit('Two forms of the bundle have the same id.');
  const kits = listOf(top['kits'], MOST_KITS, 'kits').map((k) => kitOf(k, ids));
  if (!said.length) throw new Unfit('There is no form in the bundle.');
  for (const { file, ...form } of said) {
    if (file === null) {
      forms.push({ ...form, paper: null });
      continue;
    }
    const entry = parts.get(file);
    if (!entry) throw new Unfit(`The paper of “${form.name}” is not in the bundle.`);
    const paper = new Uint8Array(await entry.bytes(left));
    left -= paper.length;
    forms.push({ ...form, paper });
  }
  return { forms, kits };
}

type Bag = Record<string, unknown>;
const bagOf = (value: unknown): Bag => {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new Unfit('A part of the bundle is not valid.');
  return value as Bag;
};

function listOf(value: unknown, most: number, what: string): Bag[] {
  if (!Array.isArray(value)) throw new Unfit(`The bundle does not say which ${what} it holds.`);
  if (value.length > most) throw new Unfit(`A bundle holds at most ${most} ${what}.`);
  return value.map(bagOf);
}

function nameOf(value: unknown): string {
  if (typeof value !== 'string' || value.length > MOST_NAME || !isClean(value) || !oneLine(value))
    throw new Unfit(`A name in the bundle is no name of at most ${MOST_NAME} letters.`);
  return oneLine(value);
}

function formOf(f: Bag): Omit<BundleForm, 'paper'> & { file: string | null } {
  const name = nameOf(f['name']);
  const id = typeof f['id'] === 'string' && /^[\w-]{1,40}$/.test(f['id']) ? f['id'] : null;
  if (!id) throw new Unfit(`“${name}” has no id that can be used.`);
  const written = f['written'] === null || f['written'] === undefined ? null : writtenFrom(f['written']);
  const file = f['paper'] === null || f['paper'] === undefined ? null : f['paper'];
  if (written ? file !== null : typeof file !== 'string')
    throw new Unfit(`“${name}” has to have either a paper or a text.`);
  const type = DOCUMENT_TYPES.find((t) => t === f['type']) ?? 'other';
  return {
    id,
    name,
    type,
    draft: draftOf(f['draft'], name, new Set([id])),
    written,
    file: typeof file === 'string' ? file : null,
  };
}

function kitOf(k: Bag, forms: ReadonlySet<string>): BundleKit {
  const name = nameOf(k['name']);
  const lastIn = k['lastIn'] ?? null;
  if (lastIn !== null && !(typeof lastIn === 'number' && Number.isInteger(lastIn) && lastIn >= 1 && lastIn <= 365))
    throw new Unfit(`The last day of “${name}” is not counted in 1 to 365 days.`);
  const draft = draftOf(k['draft'], name, forms);
  if (!draft.documents.length) throw new Unfit(`The kit “${name}” has no form.`);
  return { name, draft: { ...draft, marks: [], rules: [], passed: [] }, lastIn };
}

const FIELDS = ['subject', 'message', 'schedule', 'handOver', 'readAlong'] as const;
const LISTS = ['parties', 'documents', 'gates', 'marks', 'rules', 'passed'] as const;

/** Returns a draft built from edits, each validated like one from a desk. Marks on unknown documents are left out. */
function draftOf(value: unknown, name: string, documents: ReadonlySet<string>): Draft {
  const from = bagOf(value);
  const edits: unknown[] = FIELDS.filter((field) => from[field] !== undefined).map((field) => ({
    op: 'set',
    field,
    value: from[field],
  }));
  for (const list of LISTS) {
    if (from[list] === undefined) continue;
    if (!Array.isArray(from[list]) || from[list].length > PACKET_LIMITS[list])
      throw new Unfit(`“${name}” has more ${list} than can be taken.`);
    for (const item of from[list]) edits.push({ op: 'put', list, item });
  }
  let draft = emptyDraft(name);
  for (let i = 0; i < edits.length; i += PORTION)
    draft = applyEdits(draft, fitEdits(edits.slice(i, i + PORTION), name));
  if (overLimit(draft)) throw new Unfit(`“${name}” is more than a packet may hold.`);
  if (draft.documents.some((d) => !documents.has(d.id)))
    throw new Unfit(`“${name}” names a form that is not in the bundle.`);
  const there = (x: { documentId: string }) => documents.has(x.documentId);
  return {
    ...draft,
    parties: draft.parties.map(({ accessCode: _told, codeKept: _kept, memberId: _member, ...p }) => p),
    marks: draft.marks.filter(there),
    rules: draft.rules.filter(there),
  };
}

function fitEdits(edits: unknown[], name: string): DraftEdit[] {
  try {
    return editsBody.validateSync({ edits }, { stripUnknown: false }).edits;
  } catch (error) {
    const why = error instanceof Error ? cutEnd(error.message.slice(0, 200), /[.]/) : 'it is damaged';
    throw new Unfit(`A part of “${name}” cannot be taken: ${why}.`);
  }
}

/** Returns what of a draft goes into a bundle: nothing that belongs to members of the firm. */
export function draftForBundle(draft: Draft): Partial<Draft> {
  const { name: _name, redlines: _redlines, ...rest } = draft;
  const out: Bag = {};
  for (const key of keysOf(rest)) if ([...FIELDS, ...LISTS].some((k) => k === key)) out[key] = rest[key];
  out['parties'] = draft.parties.map(({ accessCode: _told, codeKept: _kept, memberId: _member, ...p }) => p);
  return out;
}
