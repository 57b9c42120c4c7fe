/** Fills the blanks of a contract with a made-up deal, as people do: typed over the lines, signed and dated by hand. */
import { readFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { PDFDocument, StandardFonts, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import { dueDay } from '@gatepath/core/calendar';
import { moneyWords } from '@gatepath/core/deal';
import { listWords } from '@gatepath/core/text';
import { randomOf, type Random } from '../forms/generator/random';
import { makeDeal, monthOf, written, type MadeDeal } from './deal';
import type { IntakeForm, Slot } from './forms';

/** A filled contract, and what it says. */
export interface Filled {
  bytes: Uint8Array;
  /** Values by field: the same names as in an abstract. */
  fields: Map<string, string | number>;
  /** Names by side. */
  people: Map<string, string[]>;
}

interface Label {
  page: number;
  kind: string;
  role: string;
  ordinal: number | null;
  rect: [number, number, number, number];
}

const FOLDERS = ['bench/forms/others/a', 'bench/forms/others/b', 'bench/forms'];

/** Returns a form with its labels. */
async function formOf(name: string): Promise<{ bytes: Uint8Array; labels: Label[] }> {
  const folder = FOLDERS.find((f) => existsSync(`${f}/${name}.pdf`))!;
  const truth = await readFile(
    folder.includes('others') ? `${folder}/truth/${name}.json` : `${folder}/${name}.json`,
    'utf8',
  );
  const read = JSON.parse(truth) as Label[] | { places: Label[] };
  return { bytes: await readFile(`${folder}/${name}.pdf`), labels: Array.isArray(read) ? read : read.places };
}

const SIDE_OF_SLOT: Readonly<Record<string, string>> = {
  seller: 'seller',
  buyer: 'buyer',
  landlord: 'landlord',
  tenant: 'tenant',
  guarantor: 'guarantor',
};
const AMOUNTS = ['price', 'deposit', 'rent'] as const;
const DAYS = ['made', 'closing', 'inspection', 'loan', 'start', 'end'] as const;

/** Returns the field that a slot's value belongs to; null if it belongs to none. */
function fieldOf(form: IntakeForm, slot: string): string | null {
  if (slot === 'price') return 'fact.price';
  if (slot === 'deposit') return form.kind === 'tenancy' ? 'fact.deposit' : 'fact.earnest';
  if (slot === 'rent') return 'fact.rent';
  if (['closing', 'inspection', 'loan', 'end'].includes(slot)) return `date.${slot}`;
  if (slot === 'start') return form.kind === 'tenancy' ? 'date.move_in' : 'date.listed';
  return null;
}

/** Writes a form's values on its pages. */
class Pen {
  readonly fields = new Map<string, string | number>();
  readonly people = new Map<string, string[]>();
  constructor(
    private readonly doc: PDFDocument,
    private readonly font: PDFFont,
    private readonly r: Random,
    private readonly form: IntakeForm,
    readonly deal: MadeDeal,
  ) {}

  private get spanish() {
    return this.form.spanish ?? false;
  }

  /** Notes what the contract says. */
  private say(field: string, value: string | number) {
    this.fields.set(field, value);
  }
  private name(side: string, name: string) {
    const list = this.people.get(side) ?? [];
    if (!list.includes(name)) this.people.set(side, [...list, name]);
  }

  type({ page, rect: [x, y, w, h] }: Label, text: string): void {
    const size = [10, 9.5, 9, 8, 7, 6].find((s) => this.font.widthOfTextAtSize(text, s) <= w - 2) ?? 5;
    const on = this.doc.getPages()[page - 1]!;
    this.draw(on, text, x + 2, y + h - 3, size);
  }

  private draw(on: PDFPage, text: string, x: number, y: number, size: number): void {
    const at = on.getRotation().angle === 0 ? { x, y: on.getHeight() - y } : { x, y: on.getHeight() - y };
    on.drawText(text, { ...at, size, font: this.font });
  }

  /** Draws what a pen leaves: a line that goes up and down. */
  sign({ page, rect: [x, y, w, h] }: Label): void {
    const on = this.doc.getPages()[page - 1]!;
    let from = { x: x + 6, y: on.getHeight() - y - h + 4 };
    for (let i = 0; i < 9; i++) {
      const to = {
        x: from.x + Math.min(12, (w - 12) / 9),
        y: on.getHeight() - y - h + 3 + this.r.next() * Math.min(16, h),
      };
      on.drawLine({ start: from, end: to, thickness: 1.1 });
      from = to;
    }
  }

  /** Returns what a slot holds; null to leave it empty. */
  text(slot: Slot, width: number): string | null {
    const { deal, r } = this;
    const [what, part] = slot.split('.') as [string, string | undefined];
    const most = Math.floor(width / 4.6);
    if (what === 'rate' || what === 'commission') return this.rate(part, what === 'commission');
    if (AMOUNTS.some((a) => a === what)) return this.amount(what as 'price');
    if (DAYS.some((d) => d === what)) return this.day(what as 'closing', part, most);
    const person = /^([a-z]+?)(s|\d|Company)$/.exec(what);
    if (person && SIDE_OF_SLOT[person[1]!]) return this.person(person[1]!, person[2]!);
    const place = this.place(what, part);
    if (place !== undefined) return place;
    if (what === 'otherAmount') return String(r.int(20, 400) * 1_000).replace(/(\d{3})$/, ',$1');
    if (what === 'small') return String(r.int(20, 900));
    if (what === 'otherDay') return written(r, deal.days.end, this.spanish, most);
    if (what === 'years') return String(r.of([15, 20, 30]));
    if (what === 'hour') return String(r.int(1, 11));
    if (what === 'number') return String(r.int(2, 12));
    if (what === 'lot') return `${r.int(2, 40)}-${r.int(100, 999)}`;
    if (what === 'phone') return '555-0142';
    if (what === 'mail') return 'oficina@example.com';
    if (what === 'office') return r.of(['Manager', 'President', 'Trustee']);
    if (what === 'brokerFirm') return 'Towpath & Vane Realty';
    return what === 'note' ? r.of(['curtains and stove', 'see addendum', 'none', 'noon']) : null;
  }

  private rate(part: string | undefined, bare: boolean): string {
    if (part !== 'commission' && !bare) return String(this.r.of([3, 4.5, 6, 6.25]));
    this.say('fact.commission', this.deal.amounts.commission);
    return String(this.deal.amounts.commission);
  }

  private amount(what: 'price' | 'deposit' | 'rent'): string {
    const amount = this.deal.amounts[what];
    this.say(fieldOf(this.form, what)!, amount);
    const words = moneyWords(amount).slice(1);
    return this.spanish && this.r.is(0.4) ? words.replaceAll(',', '.') : this.r.is(0.3) ? `${words}.00` : words;
  }

  private day(what: 'closing', part: string | undefined, most: number): string {
    const day = this.deal.days[what];
    const field = fieldOf(this.form, what);
    if (field) this.say(field, day);
    if (part === 'd') return String(Number(day.slice(8)));
    if (part === 'm') return monthOf(day, this.spanish);
    if (part === 'n') return day.slice(5, 7);
    if (part === 'y') return day.slice(0, 4);
    return part === 'yy' ? day.slice(2, 4) : written(this.r, day, this.spanish, most);
  }

  private person(side: string, which: string): string | null {
    const names =
      which === 'Company' ? [this.deal.people['company']![side === 'tenant' ? 1 : 0]!] : (this.deal.people[side] ?? []);
    const some = which === 's' ? names : which === 'Company' ? names : names.slice(Number(which) - 1, Number(which));
    for (const n of some) this.name(side, n);
    if (!some.length) return null;
    return this.spanish ? some.join(' y ') : this.r.is(0.2) ? some.join(' & ') : listWords([...some]);
  }

  private place(what: string, part: string | undefined): string | null | undefined {
    const { street, town } = this.deal;
    if (what === 'address') {
      this.say('address', street);
      this.say('city', town);
      return `${street}, ${town}`;
    }
    if (what === 'street') {
      this.say('address', street);
      return street;
    }
    if (what !== 'town') return undefined;
    if (part !== 'other') this.say('city', town);
    return town;
  }
}

/** Sentences with counted days; the form's blanks have none. */
const COUNTED: readonly {
  kind: 'sale';
  spanish?: true;
  field: 'inspection' | 'loan' | 'closing';
  n: [number, number];
  unit: 'days' | 'business_days';
  way: 'after' | 'before';
  from: 'accepted' | 'closing';
  text: string;
}[] = [
  {
    kind: 'sale',
    field: 'inspection',
    n: [5, 17],
    unit: 'days',
    way: 'after',
    from: 'accepted',
    text: 'Buyer shall complete all inspections of the Property within # days after acceptance of this offer.',
  },
  {
    kind: 'sale',
    field: 'inspection',
    n: [3, 12],
    unit: 'business_days',
    way: 'after',
    from: 'accepted',
    text: 'Inspection period. The inspection period ends # business days after the date of the last signature.',
  },
  {
    kind: 'sale',
    field: 'loan',
    n: [14, 30],
    unit: 'days',
    way: 'after',
    from: 'accepted',
    text: 'Loan approval: no later than # days from acceptance.',
  },
  {
    kind: 'sale',
    field: 'loan',
    n: [5, 12],
    unit: 'business_days',
    way: 'before',
    from: 'closing',
    text: 'The financing contingency is removed in writing # business days before closing.',
  },
  {
    kind: 'sale',
    field: 'closing',
    n: [30, 60],
    unit: 'days',
    way: 'after',
    from: 'accepted',
    text: 'Closing shall take place # calendar days following acceptance.',
  },
  {
    kind: 'sale',
    spanish: true,
    field: 'inspection',
    n: [5, 15],
    unit: 'days',
    way: 'after',
    from: 'accepted',
    text: 'El comprador hará la inspección dentro de los # días siguientes a la aceptación.',
  },
  {
    kind: 'sale',
    spanish: true,
    field: 'closing',
    n: [30, 60],
    unit: 'days',
    way: 'after',
    from: 'accepted',
    text: 'El cierre tendrá lugar # días después de la aceptación.',
  },
];
/** Sentences with days and amounts that are no key date and no price. */
const BESIDE = [
  'This offer expires on June 30, 2031 unless it is signed before.',
  'A late fee of $75 is due after the fifth day.',
  'Seller credits $3,500 toward closing costs.',
  'The final walk-through is held 2 days before closing.',
  'Notices are given at 88 Harbor Street, Port Alder.',
  'Any report is delivered within five business days of receipt.',
];
const WORDS =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen'.split(
    ' ',
  );

/** Returns a contract filled by chance. */
export async function fillForm(form: IntakeForm, seed: number): Promise<Filled> {
  const r = randomOf(seed);
  const { bytes, labels } = await formOf(form.name);
  const doc = await PDFDocument.load(bytes, { updateMetadata: false });
  if (doc.getForm().getFields().length) doc.getForm().flatten();
  const font = await doc.embedFont(r.of([StandardFonts.Helvetica, StandardFonts.TimesRoman, StandardFonts.Courier]));
  const deal = makeDeal(r, form.kind, form.spanish ?? false);
  const pen = new Pen(doc, font, r, form, deal);
  const typable = (text: string) => text.replace(/[^\u0020-\u007e\u00a0-\u00ff’‘“”–—]/g, '?');
  for (const [i, slot] of Object.entries(form.blanks)) {
    const label = labels[Number(i)]!;
    const text = pen.text(slot, label.rect[2]);
    if (text !== null) pen.type(label, typable(text));
  }
  for (const [field, value] of Object.entries(form.printed ?? {})) pen.fields.set(field, value);
  for (const [side, names] of Object.entries(form.people ?? {})) pen.people.set(side, names);
  signAll(pen, labels, form, r);
  if (r.is(0.6)) addClauses(doc, font, pen, form, r);
  return { bytes: await doc.save(), fields: pen.fields, people: pen.people };
}

/** Signs and dates for everybody the contract names; the last signature is the day of acceptance. */
function signAll(pen: Pen, labels: Label[], form: IntakeForm, r: Random): void {
  const people = form.people ?? pen.deal.people;
  const main = form.kind === 'tenancy' ? ['landlord', 'tenant'] : ['seller', 'buyer'];
  const days = new Map<string, string[]>();
  for (const [i, label] of labels.entries()) {
    if (form.blanks[i] || !main.includes(label.role)) continue;
    const n = label.ordinal ?? 1;
    if (n > (people[label.role]?.length ?? 0)) continue;
    if (label.kind === 'signature') pen.sign(label);
    if (label.kind !== 'date') continue;
    const day = pen.deal.signed[label.role === main[0] ? 1 : 0]!;
    days.set(label.role, [...(days.get(label.role) ?? []), day]);
    pen.type(label, written(r, day, form.spanish ?? false, Math.floor(label.rect[2] / 4.6)));
  }
  if (form.kind !== 'listing' && main.every((side) => days.has(side)))
    pen.fields.set(
      form.kind === 'sale' ? 'date.accepted' : 'date.lease_signed',
      [...days.values()].flat().sort().at(-1)!,
    );
}

/** Adds a page of further terms. */
function addClauses(doc: PDFDocument, font: PDFFont, pen: Pen, form: IntakeForm, r: Random): void {
  const page = doc.addPage([612, 792]);
  const lines = form.spanish ? [] : r.shuffled(BESIDE).slice(0, 3);
  const accepted = pen.fields.get('date.accepted');
  const open = new Set(['inspection', 'loan', 'closing'].filter((f) => !pen.fields.has(`date.${f}`)));
  const closing = pen.fields.get('date.closing');
  for (const c of r.shuffled(COUNTED)) {
    if (form.kind !== c.kind || Boolean(c.spanish) !== Boolean(form.spanish) || !open.has(c.field)) continue;
    const from = c.from === 'accepted' ? accepted : closing;
    if (typeof from !== 'string') continue;
    open.delete(c.field);
    const n = r.int(...c.n);
    const word = WORDS[n];
    lines.push(
      c.text.replace('#', !form.spanish && word && r.is(0.5) ? (r.is(0.5) ? `${word} (${n})` : word) : String(n)),
    );
    pen.fields.set(`date.${c.field}`, dueDay({ n, unit: c.unit, way: c.way, roll: false }, from, []).day);
  }
  page.drawText(form.spanish ? 'Otros pactos' : 'Further terms', { x: 72, y: 700, size: 13, font });
  r.shuffled(lines).forEach((text, i) => page.drawText(`${i + 1}. ${text}`, { x: 72, y: 670 - 24 * i, size: 9, font }));
}
