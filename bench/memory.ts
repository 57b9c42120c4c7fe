/**
 * Documents seen before: how many are recognized among others with the same clauses, whether a mark lands wrong unnoticed,
 * and how long the look-up takes among a hundred thousand.
 */
import { execFile } from 'node:child_process';
import { createRequire } from 'node:module';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import {
  fingerprintOf,
  keysOf,
  likeness,
  relationOf,
  type Fingerprint,
  type RelationKind,
} from '@gatepath/core/memory';
import { emptyGrid, inkRect, type Rect } from '@gatepath/core/paper';
import { KIND_OF_PLACE, type DocumentFacts, type Mark } from '@gatepath/core/packet';
import { filledBlanks, linesOf, wordsOf, type PlaceKind } from '@gatepath/core/reading';
import { readPlaces } from '@gatepath/core/reading/read';
import { findAgain } from '@gatepath/core/shelf';
import { launch } from '../e2e/browser';
import { newId } from '../server/ids';
import { insertKnown, knownByKeys } from '../server/memory/queries';
import { contentsOf } from '../server/reading/inspect';
import { stopRecognising } from '../server/scan/recognise';
import { readWhole, type ReadWhole as Read } from '../server/scan/whole';
import { scanOf, type Scan } from '../server/test/scan';
import { withFirm } from './firm';
import { writeForm } from './forms/generator/form';
import { randomOf } from './forms/generator/random';
import { takeLabels } from './forms/labels';
import type { Labelled } from './forms/types';
import { median, rowOf, type Row } from './measure';

/** Starts a scratch PostgreSQL server. The module is CommonJS because Jest's setup loads it, too. */
const { startCluster } = createRequire(import.meta.url)('../server/test/cluster.cjs') as {
  startCluster: () => Promise<{ url: string; remove: () => void }>;
};

/** Seeds of forms that the reader was not trained on. */
const FIRST_SEED = 5_000;
/** Number of forms that come again, and of other documents by the same grammar, which prints the same clauses in all. */
const FORMS = 60;
const OTHERS = 500;
/** One form in this many is also measured as a scan. */
const SCANNED = 6;
const EDITIONS = 30;

/** A printed form with its labels. */
interface Printed {
  bytes: Uint8Array;
  places: Labelled[];
}

/** A document as it is compared. */
interface Seen {
  seed: number;
  facts: DocumentFacts;
  print: Fingerprint | null;
  values: ReadonlySet<number>;
  asItCame: Read['asItCame'] | null;
}

/** Reads a document; scanned pages are recognized. @returns its facts, and where a mark on them is on the file as it came */
async function factsOf(
  bytes: Uint8Array,
  id: string,
): Promise<{ facts: DocumentFacts; asItCame: Read['asItCame'] | null }> {
  const came = await contentsOf(bytes);
  const bare = came.contents.flatMap((c, i) => (c.scan === 'bare' ? [i + 1] : []));
  const read = bare.length ? await readWhole(bytes, bare) : null;
  const { contents, fields } = read ? await contentsOf(read.bytes) : came;
  const pages = contents.map((content) => {
    const { width, height, glyphs } = content;
    const lines = linesOf(glyphs);
    const words = wordsOf(lines);
    const ink = emptyGrid(width, height);
    for (const w of words) inkRect(ink, w.rect);
    const print = words.map((w) => w.rect);
    const filled = filledBlanks(content, lines);
    return { width, height, ink, print, words: words.map((w) => w.text.replace(/\s+/g, '')), filled };
  });
  const facts = { id, name: id, pages, places: readPlaces(contents, fields, '') };
  return { facts, asItCame: read?.asItCame ?? null };
}

const VALUES = ['Wren Alder', 'Agnes Thorvald', 'Mateo Ibarra', '412,000', '9 Mill Cut', '12/05/2026', 'none'];

/** A form with values in it, and the indices of the places they are in. */
interface Typed {
  bytes: Uint8Array;
  values: ReadonlySet<number>;
}

/** Returns a form with values typed into four of five of its blanks for text, names and dates. */
async function typedIn({ bytes, places }: Printed, seed: number): Promise<Typed> {
  const values = new Set<number>();
  const r = randomOf(seed);
  const doc = await PDFDocument.load(bytes, { updateMetadata: false });
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (const [i, { page: n, kind, rect }] of places.entries()) {
    if (!['text', 'name', 'date'].includes(kind) || !r.is(0.8)) continue;
    values.add(i);
    const page = doc.getPages()[n - 1]!;
    const [x, y, w, h] = rect;
    const value = r.of(VALUES).slice(0, Math.max(2, Math.floor(w / 5)));
    page.drawText(value, { x: x + 2, y: page.getSize().height - y - h + 3, size: 9, font });
  }
  return { bytes: await doc.save(), values };
}

/** Ways in which a form is printed: as it was written, in other type, and with one paragraph gone and another one added. */
const WAYS = {
  same: (html: string) => html,
  type: (html: string) =>
    html.replace(
      '</style>',
      'body{font-family:"Liberation Serif",serif !important;font-size:10.4pt !important}</style>',
    ),
  edition: (html: string) => {
    const paragraphs = [...html.matchAll(/<p>[^<]{40,}<\/p>/g)];
    const gone = paragraphs[Math.floor(paragraphs.length / 2)]?.[0];
    const added = '<p>Nothing in this form limits what the law of the state grants to either side by itself.</p>';
    return gone ? html.replace(gone, added + added) : html.replace('</h1>', `</h1>${added}`);
  },
} as const;

const run = promisify(execFile);

/** Returns a PDF as another program (cairo) writes it. */
async function byCairo(bytes: Uint8Array): Promise<Uint8Array> {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-cairo-'));
  const [from, to] = [path.join(dir, 'in.pdf'), path.join(dir, 'out.pdf')];
  try {
    writeFileSync(from, bytes);
    await run('pdftocairo', ['-pdf', from, to]);
    return readFileSync(to);
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

/** Prints forms with Chromium, as the generator does. */
async function printed(seeds: readonly number[], way: keyof typeof WAYS): Promise<Map<number, Printed>> {
  const out = new Map<number, Printed>();
  const browser = await launch();
  try {
    const page = await browser.newPage();
    for (const seed of seeds) {
      const { html, size, margin } = writeForm(seed);
      await page.setContent(WAYS[way](html));
      out.set(seed, await takeLabels(await page.pdf({ ...size, margin, printBackground: true })));
    }
  } finally {
    await browser.close();
  }
  return out;
}

const rectOf = ([x, y, w, h]: Labelled['rect']): Rect => ({ x, y, w, h });
/** A place whose position alone counts. */
const NO_PLACE = { kind: 'text', role: 'unknown', ordinal: null, label: '', source: 'print', confidence: 1 } as const;
/** How far a mark may be from its place, in points. */
const NEAR = 12;

/** Where a mark on a page is on the file as it came. */
type OnPaper = (page: number, r: Rect) => Rect;

/** Returns the numbers of marks found for certain, and of those among them that are not on their place. */
function marksFound(before: Seen, from: Labelled[], after: Seen, to: Labelled[], onPaper: OnPaper) {
  // What was filled in before it was sent had no mark on it.
  const marks = from.flatMap((p, i): Mark[] =>
    before.values.has(i)
      ? []
      : [
          {
            id: String(i),
            documentId: before.facts.id,
            page: p.page,
            kind: KIND_OF_PLACE[p.kind as PlaceKind],
            partyId: 'p',
            rect: rectOf(p.rect),
            required: true,
          },
        ],
  );
  let [sure, wrong] = [0, 0];
  for (const a of findAgain(before.facts, after.facts, marks, { unseen: true })) {
    if (a.state !== 'same' && a.state !== 'moved') continue;
    sure++;
    const at = onPaper(a.page, a.rect);
    const there = to[Number(a.markId)]!;
    const [x, y] = there.rect;
    if (there.page !== a.page || Math.hypot(x - at.x, y + there.rect[3] - at.y - at.h) > NEAR) {
      wrong++;
    }
  }
  return { all: marks.length, sure, wrong };
}

/** Documents by the keys of their fingerprints, as the table `known_key` has them. */
class Known {
  private readonly byKey = new Map<number, Seen[]>();

  add(seen: Seen): void {
    for (const key of seen.print ? keysOf(seen.print) : []) this.byKey.set(key, [...(this.byKey.get(key) ?? []), seen]);
  }

  /** Returns the known document that a new one is, and how they are related. */
  find({ facts, print }: Seen): { seen: Seen; kind: RelationKind } | null {
    if (!print) return null;
    const shared = new Map<Seen, number>();
    for (const key of keysOf(print)) for (const s of this.byKey.get(key) ?? []) shared.set(s, (shared.get(s) ?? 0) + 1);
    const likely = [...shared]
      .sort((a, b) => b[1] - a[1])
      .slice(0, 6)
      .map(([s]) => s)
      .sort((a, b) => likeness(b.print!, print) - likeness(a.print!, print));
    for (const seen of likely) {
      const { kind } = relationOf(seen.facts, facts);
      if (kind !== 'other') return { seen, kind };
    }
    return null;
  }
}

interface Tally {
  of: number;
  right: number;
  wrongForm: number;
  kinds: Partial<Record<RelationKind, number>>;
  marks: number;
  sure: number;
  wrong: number;
}
const tally = (): Tally => ({ of: 0, right: 0, wrongForm: 0, kinds: {}, marks: 0, sure: 0, wrong: 0 });

/** Measures recognition, and prints it. */
export async function memoryAccuracy(say: (text: string) => void): Promise<Record<string, Tally>> {
  const seeds = Array.from({ length: FORMS + OTHERS }, (_, i) => FIRST_SEED + i);
  const ours = seeds.slice(0, FORMS);
  const forms = await printed(seeds, 'same');
  const inType = await printed(ours, 'type');
  const editions = await printed(ours.slice(0, EDITIONS), 'edition');
  const seen = async (seed: number, { bytes, values }: Typed): Promise<Seen> => {
    const { facts, asItCame } = await factsOf(bytes, `form-${seed}`);
    return { seed, facts, print: fingerprintOf(facts), values, asItCame };
  };
  const known = new Known();
  // What was sent before was filled in, too.
  for (const seed of seeds) known.add(await seen(seed, await typedIn(forms.get(seed)!, seed)));
  const out: Record<string, Tally> = {};
  const measure = async (set: string, seed: number, typed: Typed, places: Labelled[], scan?: Scan) => {
    const t = (out[set] ??= tally());
    const now = await seen(seed, typed);
    const found = known.find(now);
    t.of++;
    if (found?.seen.seed === seed) t.right++;
    else if (found) t.wrongForm++;
    if (!found) return;
    t.kinds[found.kind] = (t.kinds[found.kind] ?? 0) + 1;
    const from = forms.get(found.seen.seed)!.places;
    if (found.seen.seed !== seed || from.length !== places.length) return;
    const onPaper: OnPaper = (page, rect) => {
      const came = now.asItCame?.({ ...NO_PLACE, page, rect }).rect ?? rect;
      return scan ? scan.onPaper(page, came) : came;
    };
    const { all, sure, wrong } = marksFound(found.seen, from, now, places, onPaper);
    t.marks += all;
    t.sure += sure;
    t.wrong += wrong;
  };
  for (const [i, seed] of ours.entries()) {
    const form = forms.get(seed)!;
    await measure('filled in', seed, await typedIn(form, seed + 1), form.places);
    const otherwise = await typedIn(form, seed + 2);
    await measure('by another program', seed, { ...otherwise, bytes: await byCairo(otherwise.bytes) }, form.places);
    const type = inType.get(seed)!;
    await measure('in other type', seed, await typedIn(type, seed + 3), type.places);
    const edition = editions.get(seed);
    if (edition) await measure('changed editions', seed, { bytes: edition.bytes, values: new Set() }, edition.places);
    if (i % SCANNED) continue;
    const typed = await typedIn(form, seed + 4);
    const scan = await scanOf(typed.bytes, undefined, seed);
    await measure('scanned', seed, { ...typed, bytes: scan.bytes }, form.places, scan);
  }
  await stopRecognising();
  for (const [set, t] of Object.entries(out))
    say(
      `  ${set}: ${t.right} of ${t.of} recognized, ${t.wrongForm} taken for another form (${Object.entries(t.kinds)
        .map(([kind, n]) => `${kind} ${n}`)
        .join(', ')}); of ${t.marks} marks ${t.sure} placed for certain, ${t.wrong} of them wrong`,
    );
  return out;
}

/** Number of known documents among which one is looked up. */
const MANY = 100_000;

/** Measures looking up a document by its fingerprint among a hundred thousand, on both databases. */
export async function rows(): Promise<Row[]> {
  const embedded = await lookingUp('PGlite', {});
  const cluster = await startCluster();
  try {
    return [embedded, await lookingUp('PostgreSQL', { DATABASE_URL: `${cluster.url}/postgres` })];
  } finally {
    cluster.remove();
  }
}

/** Measures looking up on one database, against looking up among a hundred documents. */
function lookingUp(database: string, env: Record<string, string>): Promise<Row> {
  return withFirm(async (_, running) => {
    const { pool } = running.ctx.database;
    const r = randomOf(1);
    const random = () => Array.from({ length: 64 }, () => r.int(-2_147_483_647, 2_147_483_647));
    const prints: number[][] = [];
    const fill = async (count: number) => {
      for (let at = 0; at < count; at += 500) {
        const some = Array.from({ length: Math.min(500, count - at) }, random);
        const ids = some.map(() => newId());
        prints.push(some[0]!);
        await pool.query(
          `insert into known_document (id, print, created_at) select id, array(select jsonb_array_elements_text(p)::integer), now()
           from unnest($1::text[], $2::jsonb[]) as t(id, p)`,
          [ids, some.map((p) => JSON.stringify(p))],
        );
        await pool.query(
          `insert into known_key (key, known_id) select jsonb_array_elements_text(k)::integer, id from unnest($1::text[], $2::jsonb[]) as t(id, k)`,
          [ids, some.map((p) => JSON.stringify(keysOf(p)))],
        );
      }
      await pool.query('analyze known_key');
    };
    const lookUp = () => knownByKeys(pool, keysOf(prints[r.int(0, prints.length - 1)]!), 6);
    await insertKnown(pool, newId(), random(), [1, 2, 3], new Date());
    await fill(100);
    const few = await median(lookUp, 31);
    await fill(MANY - 100);
    const many = await median(lookUp, 31);
    const { rows: plan } = await pool.query<{ 'QUERY PLAN': string }>(
      `explain select known_id, count(*) as n from known_key where key = any($1::integer[]) group by known_id`,
      [keysOf(prints[0]!)],
    );
    const text = plan.map((p) => p['QUERY PLAN']).join('\n');
    if (!/known_key_pkey/.test(text)) throw new Error(`The keys are looked up without their index:\n${text}`);
    return rowOf(`looking up a document among 100,000 on ${database}`, many, 'among 100', few);
  }, env);
}
