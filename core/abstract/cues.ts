/** The words by which contracts say what an amount or a day is. Data only: one list for each meaning, English and Spanish. */
import { pieceAt, type Piece } from './pieces';

/** What words near a value say that it is. `none` is something that no field holds: a loan, a late fee, a birthday. */
export type Meaning =
  | 'price'
  | 'deposit'
  | 'rent'
  | 'commission'
  | 'closing'
  | 'inspection'
  | 'loan'
  | 'accepted'
  | 'disclosed'
  | 'start'
  | 'end'
  | 'signed'
  | 'none';

/** A cue in the text; `to` is exclusive. */
export interface Cue {
  from: number;
  to: number;
  meaning: Meaning;
  /** By how many words it counts as nearer than it is: "a month" says more than the word before. */
  pull: number;
}

type Lexicon = Readonly<Partial<Record<Meaning, string>>>;

/** Meanings of amounts; phrases are separated by commas. */
export const MONEY_CUES: Lexicon = {
  price:
    'purchase price, sale price, sales price, selling price, contract price, total price, agreed price, offered price, offer price, price, list price, listing price, asking price, for the sum of, the sum of, a total of, offers to pay, precio, precio de compra, precio de venta, precio ofrecido, precio total, precio de la compraventa, la suma de, la cantidad de, por la suma de, offer of, consideration of, valor de venta',
  deposit:
    'earnest money, earnest money deposit, earnest deposit, earnest, deposits, shall deposit, initial deposit, good faith deposit, escrow deposit, deposit, security deposit, damage deposit, binder deposit, with this contract, with this offer, arras, deposito, deposito inicial, deposito de garantia, deposito de seguridad, deposito en garantia, deposito de buena fe, fianza, pago inicial, initial payment, senal, as security',
  rent: 'monthly rent, base rent, rent, rental, monthly rental, renta, renta mensual, alquiler, alquiler mensual, canon, canon mensual, mensualidad, monthly installments, monthly installments of, monthly payments of',
  none: 'of the price, del precio, loan, loan amount, mortgage, balance, down payment, fee, fees, late fee, late charge, flat sum, flat fee, penalty, interest, for keys, for pets, credit, seller credit, insurance, repairs, repair, increase, reduction, pet deposit, pet fee, pet rent, key deposit, cleaning deposit, cleaning fee, additional deposit, second deposit, further deposit, increased deposit, dues, assessment, assessments, tax, taxes, warranty, damages, option fee, application fee, parking, utilities, first month, last month, last month rent, prorated rent, per day, a day, cost, costs, expenses, allowance, prestamo, hipoteca, saldo, multa, recargo, para llaves, mascotas, honorarios, seguro, gastos, impuestos, costo, costos, reparaciones, cuota, is for keys, por dia, returned check, net proceeds, payoff, market value, assessed value, at least, not less than, not to exceed, up to, closing costs, is due then, minimum',
  commission: 'commission, comision',
};

/** Meanings of what stands after an amount. */
export const AFTER_MONEY_CUES: Lexicon = {
  rent: 'a month, per month, monthly, each month, every month, al mes, por mes, mensuales, cada mes, / month, / mo, per calendar month',
  deposit:
    'as earnest money, as an earnest money deposit, as a deposit, as the deposit, as initial deposit, as deposit, is the initial deposit, is the deposit, earnest money, is paid as a deposit, with this contract, with this offer, as security, as a security deposit, as security deposit, como deposito, como arras, en arras, de deposito, as a good faith deposit, initial deposit, security deposit',
  price:
    'as the purchase price, purchase price, as the price, for the property, for the house, for the home, como precio',
  none: 'is due then, by a loan, by loan, in loan, is for keys, for keys, for pets, per day, a day, a week, per week, a year, per year, annually, late fee, of it, loan, mortgage, al ano, por ano, por dia, prestamo, at closing, al cierre',
};

/** Meanings of days. */
export const DAY_CUES: Lexicon = {
  closing:
    'closing, closing date, date of closing, close of escrow, close of escrow date, escrow closes, coe, settlement, settlement date, date of settlement, hand-over, handover, close, closes, shall close, to close, cierre, fecha de cierre, fecha del cierre, cierre de la operacion, escrituracion, otorgamiento de la escritura, firma de la escritura, delivery of the deed, deed is delivered, transfer of title',
  inspection:
    'inspection, inspections, inspection period, inspection deadline, inspection contingency, inspection objection deadline, due diligence, due diligence period, to inspect, inspect, inspeccion, inspecciones, inspeccionar, periodo de inspeccion, property inspections, home inspection',
  loan: 'loan, loan approval, loan approval deadline, loan contingency, loan commitment, loan commitment deadline, financing, financing contingency, financing deadline, mortgage commitment, mortgage contingency, mortgage approval, mortgage, prestamo, hipoteca, financiamiento, financiacion, aprobacion del prestamo',
  disclosed:
    'disclosure, disclosures, seller disclosures, disclosure date, disclosures due, divulgacion, divulgaciones, declaraciones',
  accepted:
    'acceptance date, date of acceptance, acceptance, accepted, accepted on, effective date, binding agreement date, date of mutual acceptance, mutual acceptance, fecha de aceptacion, aceptacion, aceptado, fecha efectiva, fecha de vigencia',
  start:
    'begins, begin, beginning, begins on, starts, start, starting, start date, commences, commence, commencing, commencement, commencement date, move-in, move-in date, move in date, from, desde, empieza, comienza, inicia, inicio, fecha de inicio, a partir del, a partir de, occupancy date, takes possession, lease start, lease begins, listing begins, listing date',
  end: 'ends, end, ending, ends on, end date, expires, expire, expiration, expiration date, expiring, until, through, thru, to, terminates, termination, termination date, hasta, termina, vence, vencimiento, finaliza, fecha de terminacion, fecha de vencimiento, lease end, lease ends, listing ends',
  signed:
    'date, date signed, signed on, day signed, date of signature, fecha, fecha de firma, fecha de la firma, firmado el',
  none: 'made on, made this, made and entered into, entered into, entered into this, dated, dated as of, as of, on this, date of offer, offer date, date of this offer, date of this agreement, date of this contract, contract date, agreement date, date prepared, fecha de la oferta, fecha del contrato, celebrado, suscrito, birth, date of birth, born, fecha de nacimiento, offer expires, offer ends, this offer ends, answer ends, this answer ends, counter ends, counteroffer ends, ends at, respuesta vence, esta respuesta vence, this offer expires, offer shall expire, expiration of offer, response deadline, built, walk-through, walkthrough, walk through, final walk-through, open days, possession, possession date, survey, survey deadline, appraisal, appraisal deadline, title, title deadline, title objection deadline, tax, taxes, license, licence, licence expires, license expires, insurance, received, notice, revision, revised, form date, rev, printed, of the month, escritura, posesion, entrega de llaves, offer is open until, open until, open for acceptance until, acceptance by, valid until, oferta vence, vigencia de la oferta, respond by, counteroffer, additional deposit, deposit, earnest money, lead paint, repair, repairs, amendment',
};

/** Words from which days are counted. */
export const ANCHOR_CUES: Lexicon = {
  accepted:
    'acceptance, the acceptance, acceptance of this offer, acceptance date, date of acceptance, mutual acceptance, effective date, the effective date, binding agreement date, the date of the last signature, the last signature, last signature, date of acceptance, full execution, execution, signing, aceptacion, la aceptacion, fecha de aceptacion, la firma, la ultima firma, la firma del contrato, el contrato',
  closing:
    'closing, the closing, closing date, date of closing, close of escrow, the close of escrow, settlement, the settlement date, cierre, el cierre, fecha de cierre, del cierre, al cierre',
  start:
    'move-in, the start of the lease, commencement, commencement date, the start date, beginning of the term, inicio del contrato, el inicio',
};

/** Words of sentences about the term of a lease or listing. */
export const TERM_WORDS: ReadonlySet<string> = new Set(
  'term lease tenancy rental listing agreement contract plazo duracion contrato arrendamiento vigente vigencia alquiler period tenant landlord lessor lessee rent renta month months'.split(
    ' ',
  ),
);

/** Words of sentences about the term of something else. */
export const OTHER_TERMS: ReadonlySet<string> = new Set(
  'option offer consent counter counteroffer quiet showings showing warranty insurance loan storage license licence'.split(
    ' ',
  ),
);

/** How far a cue that says more than the words before it pulls. */
const PULL: Readonly<Record<string, number>> = Object.fromEntries(
  [
    'a month',
    'per month',
    'monthly',
    'each month',
    'every month',
    'al mes',
    'por mes',
    'mensuales',
    'cada mes',
    'is due then',
    'is for keys',
    'by a loan',
    'by loan',
    'with this contract',
    'with this offer',
    'per day',
    'is the initial deposit',
    'is the deposit',
    'to inspect',
  ].map((p) => [p, 6]),
);

type Index = ReadonlyMap<string, { words: string[]; meaning: Meaning; pull: number }[]>;

const isMeaning = (text: string, lexicon: Lexicon): text is Meaning => Object.hasOwn(lexicon, text);

/** Returns the phrases of a lexicon by their first word, the longest first. */
export function indexOf(lexicon: Lexicon): Index {
  const out = new Map<string, { words: string[]; meaning: Meaning; pull: number }[]>();
  for (const meaning of Object.keys(lexicon))
    if (isMeaning(meaning, lexicon))
      for (const phrase of lexicon[meaning]!.split(', ')) {
        const words = phrase.split(' ');
        const list = out.get(words[0]!) ?? [];
        list.push({ words, meaning, pull: PULL[phrase] ?? 0 });
        out.set(words[0]!, list);
      }
  for (const list of out.values()) list.sort((a, b) => b.words.length - a.words.length);
  return out;
}

/** Returns the longest cue that begins at a piece; null if none does. */
export function cueAt(pieces: readonly Piece[], at: number, index: Index): Cue | null {
  for (const { words, meaning, pull } of index.get(pieceAt(pieces, at)) ?? [])
    if (words.every((word, n) => pieceAt(pieces, at + n) === word))
      return { from: at, to: at + words.length, meaning, pull };
  return null;
}

/** Returns all cues of a document, the longest where several begin, without those within another. */
export function cuesIn(pieces: readonly Piece[], index: Index): Cue[] {
  const out: Cue[] = [];
  for (let i = 0; i < pieces.length; i++) {
    const cue = cueAt(pieces, i, index);
    if (!cue) continue;
    out.push(cue);
    i = cue.to - 1;
  }
  return out;
}
