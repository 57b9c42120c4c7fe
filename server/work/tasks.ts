/** The tasks of worker processes, by name. Each takes and returns plain data; bytes of documents are in files. */
import type { Draft, Mark, PacketParty, Redline, ScriptFace } from '@gatepath/core/packet';
import type { Abstract } from '@gatepath/core/abstract';
import type { Fingerprint, Recalled, Relation } from '@gatepath/core/memory';
import type { DealKind } from '@gatepath/core/deal';
import type { DealFacts } from '@gatepath/core/merge';
import type { PrintedPlace } from '@gatepath/core/reading';
import type { Corners } from '@gatepath/core/scan';
import type { Again, Slot } from '@gatepath/core/shelf';
import { readStored } from '../files/stored';
import { newId } from '../ids';
import type { ComposeTask } from '../pdf-sealing/compose';
import type { PaperKind } from '@gatepath/contract';
import type { VersionFile } from '../reading/changes';
import type { ChangesPdfTask } from '../typesetting/changes-pdf';
import type { FactsFile } from '../pdf/facts-file';
import type { FaceName } from '../typesetting/fonts';
import type { ReadTask } from '../reading/read';
import type { Copy, SealTask } from '../pdf-sealing/seal';
import type { LetterTask } from '../typesetting/letters';
import type { GapsPaper } from '../scan/gaps';
import type { ReadPage } from '../scan/layer';
import type { RecogniseTask } from '../scan/page';
import type { WrittenTask } from '../typesetting/written';
import { itemAt } from '@gatepath/core/sure';

/** A task whose bytes are in files that workers read themselves. */
type FromFiles<T> = Omit<T, 'bytes' | 'pictures'> & { file: string; pictures: Record<string, string> };

async function withBytes<T extends { file: string; pictures: Record<string, string> }>(
  t: T,
): Promise<Omit<T, 'pictures'> & { bytes: Uint8Array; pictures: Record<string, Uint8Array> }> {
  const pictures: Record<string, Uint8Array> = {};
  for (const [sha256, file] of Object.entries(t.pictures)) pictures[sha256] = await readStored(file);
  return { ...t, bytes: await readStored(t.file), pictures };
}

/** Reports a task's position to its watcher. */
export type At = (where: string) => void;

// Libraries are loaded with the first task that needs them: a fresh worker should be ready soon.
/** All tasks by name; each takes and returns plain data. */
export const tasks = {
  sort: async (t: { file: string; name: string }) =>
    (await import('../uploads/convert')).sortOf(await readStored(t.file), t.name),
  convert: async (t: { file: string; kind: Exclude<PaperKind, 'pdf'>; title: string; corners?: Corners | null }) =>
    (await import('../uploads/convert')).convert(await readStored(t.file), t.kind, t.title, t.corners),
  /** Reads a bundle of forms and kits, or says why it cannot be used. */
  bundle: async (t: { file: string }) => (await import('../uploads/bundle-file')).readBundle(await readStored(t.file)),
  written: async (t: WrittenTask) => (await import('../typesetting/written')).setWritten(t),
  /** The same for many households, in a lane that nobody who writes or signs waits for. */
  writtenOfMany: async (t: WrittenTask) => (await import('../typesetting/written')).setWritten(t),
  letters: async (t: LetterTask, at: At) => (await import('../typesetting/letters')).setLetters(t, at),
  compose: async (t: ComposeTask) => (await import('../pdf-sealing/compose')).compose(t),
  sizes: async (t: { file: string }) => (await import('../pdf-sealing/compose')).sizes(await readStored(t.file)),
  inspect: async (t: { bytes: Uint8Array }) => (await import('../reading/inspect')).inspect(t.bytes),
  prepare: async (t: { file: string }, at: At) =>
    (await import('../uploads/prepare')).prepare(await readStored(t.file), at),
  read: async (t: ReadTask, at: At) => (await import('../reading/read')).readPages(t, at),
  recognise: async (t: RecogniseTask) => (await import('../scan/page')).recognisePage(t),
  layWords: async (t: { file: string; pages: ReadPage[] }) =>
    (await import('../scan/layer')).withWords(await readStored(t.file), t.pages),
  gaps: async (t: { back: GapsPaper; blank: GapsPaper | null }, at: At) =>
    (await import('../scan/gaps')).findGapsIn(t, at),
  /** Compares two versions of a document. */
  changes: async (t: { before: VersionFile; after: VersionFile }) => (await import('../reading/changes')).changesIn(t),
  changesPdf: async (t: ChangesPdfTask, at: At) => (await import('../typesetting/changes-pdf')).changesPdf(t, at),
  png: async (t: { file: string; page: number; size: { width: number; height: number }; dpi: number }) =>
    (await import('../pdf/draw')).drawPng(t),
  seal: async (t: FromFiles<SealTask>) => (await import('../pdf-sealing/seal')).seal(await withBytes(t)),
  copy: async (t: FromFiles<Copy>) => (await import('../pdf-sealing/seal')).copyWith(await withBytes(t)),
  picture: async (t: { bytes: Uint8Array }) => (await import('../uploads/hand-picture')).handPicture(t),
  missing: async (t: { text: string; face: FaceName; alone?: boolean }) =>
    (await import('../typesetting/fonts')).missingCharacters(t.text, t.face, t.alone),
  /** Returns the script typefaces that have every letter of a name. */
  faces: async (t: { name: string }): Promise<ScriptFace[]> => {
    const { missingCharacters } = await import('../typesetting/fonts');
    const { SCRIPT_FACES } = await import('@gatepath/core/packet');
    const missing = await Promise.all(SCRIPT_FACES.map((face) => missingCharacters(t.name, face, true)));
    return SCRIPT_FACES.filter((_, i) => itemAt(missing, i).length === 0);
  },
  /** Returns the words of a document's first pages from its facts. */
  words: async (t: { file: string; most: number }): Promise<string> => {
    const { packedFactsIn } = await import('../pdf/facts-file');
    let words = '';
    for (const p of (await packedFactsIn(t.file)).pages) {
      if (words.length >= t.most) break;
      words += `${p.words} `;
    }
    return words.slice(0, t.most);
  },
  /** Reads headings and cells of a table, or says why it is not one. */
  table: async (t: { bytes: Uint8Array }) => (await import('../uploads/table')).readTable(t.bytes),
  /** Verifies the digital signatures a file arrived with. */
  signatures: async (t: { file: string }) =>
    (await import('../pdf-sealing/foreign')).foreignSignatures(await readStored(t.file)),
  verifySeals: async (t: { bytes: Uint8Array }) => (await import('../pdf-sealing/verify')).verifyCopy(t.bytes),

  /** Runs the gate check of a draft, and returns the marks and tags that would be sent. */
  gateCheck: async (t: { draft: Draft; documents: FactsFile[]; facts: DealFacts }) => {
    const { viewDraft } = await import('@gatepath/core/checks');
    const { factsIn } = await import('../pdf/facts-file');
    const { findings, marks, tags } = viewDraft(t.draft, await factsIn(t.documents), t.facts);
    return { findings, marks, tags };
  },
  /** Returns the slots that the printed places of a form name. */
  slots: async (t: { documents: FactsFile[] }): Promise<Slot[]> => {
    const { slotsOnPages } = await import('@gatepath/core/shelf');
    const { factsIn } = await import('../pdf/facts-file');
    return slotsOnPages(
      (await factsIn(t.documents)).flatMap((d) => d.places),
      newId,
    );
  },
  /** Finds the marks of a form on its changed paper. */
  again: async (t: { before: FactsFile; after: FactsFile; marks: Mark[] }): Promise<Again[]> => {
    const { findAgain } = await import('@gatepath/core/shelf');
    const { factsIn } = await import('../pdf/facts-file');
    const [before, after] = await factsIn([t.before, t.after]);
    return before && after ? findAgain(before, after, t.marks) : [];
  },
  /** Returns the fingerprint of a document's printed words; null if there are too few. */
  fingerprint: async (t: { document: FactsFile }): Promise<Fingerprint | null> => {
    const { fingerprintOf } = await import('@gatepath/core/memory');
    const { factsIn } = await import('../pdf/facts-file');
    const [document] = await factsIn([t.document]);
    return document ? fingerprintOf(document) : null;
  },
  /** Returns what a document says about its deal. @param t.scanned its scanned pages, from 1 @param t.kind its deal's, if it has one */
  abstract: async (t: { document: FactsFile; scanned: number[]; kind?: DealKind }): Promise<Abstract | null> => {
    const { abstractOf } = await import('@gatepath/core/abstract');
    const { factsIn } = await import('../pdf/facts-file');
    const [document] = await factsIn([t.document]);
    const scanned = new Set(t.scanned);
    const pages = document?.pages.map(({ words, print }, i) => ({
      words: print.map((rect, n) => ({ text: words[n] ?? '', rect })),
      scanned: scanned.has(i + 1),
    }));
    return pages ? abstractOf(pages, t.document.name, t.kind) : null;
  },
  /** Compares the words of two documents. */
  relation: async (t: { before: FactsFile; after: FactsFile }): Promise<Relation | null> => {
    const { relationOf } = await import('@gatepath/core/memory');
    const { factsIn } = await import('../pdf/facts-file');
    const [before, after] = await factsIn([t.before, t.after]);
    return before && after ? relationOf(before, after) : null;
  },
  /** Returns the number of corrections on each document: see `countCorrections`. */
  corrections: async (t: { sent: { draft: Draft; document: FactsFile }[] }): Promise<number[]> => {
    const { countCorrections } = await import('@gatepath/core/memory');
    const { factsIn } = await import('../pdf/facts-file');
    const documents = await factsIn(t.sent.map((s) => s.document));
    return t.sent.map(({ draft }, i) => countCorrections({ draft, document: itemAt(documents, i) }));
  },
  /** Returns the printed places of a document with the corrections on an earlier one; null if it is another document. */
  learn: async (t: {
    sent: { draft: Draft; document: FactsFile };
    after: FactsFile;
  }): Promise<PrintedPlace[] | null> => {
    const { learnedPlaces } = await import('@gatepath/core/memory');
    const { factsIn } = await import('../pdf/facts-file');
    const [document, after] = await factsIn([t.sent.document, t.after]);
    return document && after ? learnedPlaces({ draft: t.sent.draft, document }, after) : null;
  },
  /** Places what was on a document the last time for the people of a draft. */
  recall: async (t: { form: Draft; before: FactsFile; after: FactsFile; draft: Draft }): Promise<Recalled | null> => {
    const { recall } = await import('@gatepath/core/memory');
    const { factsIn } = await import('../pdf/facts-file');
    const [before, after] = await factsIn([t.before, t.after]);
    return before && after ? recall({ form: t.form, before }, after, t.draft, newId) : null;
  },
  /** Previews a kit on a deal: the draft, who fills which slot, what each will do, and the gate check. */
  kit: async (t: {
    kit: Draft;
    forms: { draft: Draft; document: FactsFile }[];
    people: PacketParty[];
    facts: DealFacts;
  }) => {
    const { draftOfKit } = await import('@gatepath/core/shelf');
    const { viewDraft } = await import('@gatepath/core/checks');
    const { isForClient, requiredPlaces } = await import('@gatepath/core/packet');
    const { factsIn } = await import('../pdf/facts-file');
    const documents = await factsIn(t.forms.map((f) => f.document));
    const forms = t.forms.map((f, i) => ({ draft: f.draft, document: itemAt(documents, i) }));
    const use = draftOfKit({ kit: t.kit, forms, people: t.people, newId });
    const { findings, marks } = viewDraft(use.draft, documents, t.facts);
    const doing = use.draft.parties.map((p) => {
      const own = requiredPlaces(marks.filter((m) => m.partyId === p.id && isForClient(m)));
      const n = (kind: Mark['kind']) => own.filter((place) => place[0]?.kind === kind).length;
      const [signatures, initials] = [n('signature'), n('initials')];
      return { partyId: p.id, signatures, initials, others: own.length - signatures - initials };
    });
    return { ...use, findings, doing };
  },
  /** Returns the marks of a person who is added after sending. */
  marksFor: async (t: {
    parties: PacketParty[];
    documents: FactsFile[];
    marks: Mark[];
    redlines: Redline[];
    initials: boolean;
  }): Promise<{ marks: Mark[]; without: { document: string; name: string }[] }> => {
    const { marksForNewcomer } = await import('@gatepath/core/packet');
    const { factsIn } = await import('../pdf/facts-file');
    const documents = await factsIn(t.documents);
    const made: Mark[] = [];
    const without: { document: string; name: string }[] = [];
    for (const party of t.parties) {
      const r = marksForNewcomer(party, documents, [...t.marks, ...made], t.redlines, t.initials, newId);
      made.push(...r.marks);
      without.push(...r.without.map((document) => ({ document, name: party.name })));
    }
    return { marks: made, without };
  },
  /** Returns the ids of marks that cover printed words. */
  marksOverPrint: async (t: { documents: FactsFile[]; marks: Mark[] }): Promise<string[]> => {
    const { coversPrint } = await import('@gatepath/core/paper');
    const { factsIn } = await import('../pdf/facts-file');
    const documents = await factsIn(t.documents);
    return t.marks
      .filter((m) => {
        const page = documents.find((d) => d.id === m.documentId)?.pages[m.page - 1];
        return !!page && coversPrint(page, m.rect);
      })
      .map((m) => m.id);
  },
  /** Returns the edits that make a new draft ask for what is missing on a returned paper. */
  missingOn: async (t: { draft: Draft; document: FactsFile; missing: PrintedPlace[] }) => {
    const { missingEdits } = await import('@gatepath/core/packet');
    const { factsIn } = await import('../pdf/facts-file');
    return missingEdits(t.draft, itemAt(await factsIn([t.document]), 0), t.missing, newId);
  },
  /** Returns initials beside a redline. */
  marksBeside: async (t: {
    redline: Redline;
    document: FactsFile;
    parties: PacketParty[];
    obstacles: Mark['rect'][];
  }): Promise<Mark[] | null> => {
    const { marksOfRedline } = await import('@gatepath/core/packet');
    const { factsIn } = await import('../pdf/facts-file');
    const [facts] = await factsIn([t.document]);
    const page = facts?.pages[t.redline.page - 1];
    return page ? marksOfRedline(t.redline, page, t.parties, t.obstacles).marks : null;
  },
};

/** The type of `tasks`. */
export type Tasks = typeof tasks;
/** Name of a task. */
export type TaskName = keyof Tasks;
