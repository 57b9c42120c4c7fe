/** Rules for days: of a date in words, of a term, of a table. */
import { tail } from './captions';
import { BLANK } from './flow';
import { rule, DAY_WIDE } from './rule';
import { kindOfWords, plain } from './words';

/** Words that a day follows. */
const DAY_BEFORE =
  /\b(?:on|on or (?:before|about|after)|until|since|before|dated|(?:offer|agreement|contract|listing|oferta|contrato) (?:of|del?)|(?:no|not) later than|through|till|as of|(?:extended|moved|postponed) to|prorrogad[oa] (?:a|al|hasta)|vence el|antes del|a mas tardar el|commencing|beginning|effective|hasta(?: el)?|desde(?: el)?|a partir del?|el dia|ending|midnight of|(?:entregado|recibido|pagado) el)\s?:?$/;

/** What is of a day, where the blank is no wider than one: "the lease of ________". */
const OF_DAY = /\b(?:lease|letter|list|notice|addendum) (?:of|dated)$/;

/** "Date: __/__/____" */
export const dateInPieces = rule('date in pieces', (q) =>
  q.b.pieces ? q.is('date', q.role(q.c.left), q.c.left || 'Date', 0.9, 'words') : null,
);

/** "Dated this ____ day of", "a los ____ dias" */
export const dayOfMonth = rule('day of a month', (q) =>
  q.width < DAY_WIDE &&
  /\bthis$|\bdated(?: this| the)?$|\bel dia$|\ba los?$|\ben fecha$/.test(q.leftTail) &&
  /^(?:st|nd|rd|th)?\s*day\b|^dias?\b|^de\b/.test(q.right)
    ? q.ofText('date', null, q.c.left, 0.85, 'words')
    : null,
);

/** "Signed on the ____ day of" */
export const dayBefore = rule('day of, behind it', (q) =>
  q.width < DAY_WIDE && /^(?:st|nd|rd|th)?\s*day of\b(?! (?:each|every|the|any)\b)/.test(q.right)
    ? q.ofText('date', null, q.c.left, 0.85, 'words')
    : null,
);

/** "day of __________" */
export const month = rule('month after its day', (q) =>
  /\bday of$|\bdias? (?:de|del mes de)$/.test(q.leftTail) ? q.ofText('date', null, q.c.left, 0.85, 'words') : null,
);

/** ", 20__" behind a day and a month; "built in 19__" */
export const year = rule('year after its century', (q) => {
  if (q.width >= 80 || !/(?:^|[\s,])(?:19|20|de 20|del? ano 20|del? ano)$/.test(q.leftTail)) return null;
  const ofDay = /_ ?,? ?(?:(?:of|del?) )?(?:ano )?(?:19|20)?$|\b(?:date[ds]?|fecha|day|dia)\b/.test(
    plain(q.flow.before),
  );
  return q.ofText(ofDay ? 'date' : 'text', null, 'Year', 0.8, 'words');
});

/** "from ________ to ________": the second of two days */
export const toDay = rule('day to which', (q) =>
  q.lastInText?.kind === 'date' &&
  q.width < 150 &&
  new RegExp(`${BLANK} (?:to|al|and|through|until|hasta(?: el)?|a)$`).test(plain(q.flow.before))
    ? q.ofText('date', null, q.c.left, 0.65, 'words')
    : null,
);

/** "From ________ until ________" */
export const fromDay = rule('day from which', (q) =>
  q.width > 55 &&
  q.width < 110 &&
  /\b(?:from|desde|by|del)(?: the)?$/.test(q.leftTail || tail(q.flow.before, 3)) &&
  (/^(?:[.,;]|$|for\b|por\b|on\b)/.test(plain(q.flow.after)) ||
    new RegExp(`^(?:until|to|through|till|hasta|a|al)\\b.{0,12}${BLANK}`).test(plain(q.flow.after)))
    ? q.ofText('date', null, q.c.left, 0.65, 'words')
    : null,
);

/** "a ____ de ________ de 20__" */
export const spanishDay = rule('day of a month in Spanish', (q) => {
  if (q.width >= DAY_WIDE) return null;
  const [before, after] = [plain(q.flow.before), plain(q.flow.after)];
  const day = /\b(?:a|el|los|dia|del?)$/.test(before) && new RegExp(`^de ${BLANK} del?\\b`).test(after);
  const ofDay = new RegExp(`${BLANK} de$`).test(before) && /^de(?:l| ano)* ?(?:20|19)?/.test(after);
  return day || (ofDay && /^del?\b/.test(after)) ? q.ofText('date', null, q.c.left, 0.8, 'words') : null;
});

/** "The term begins on ________", "not later than ________" */
export const dayInSentence = rule('day in a sentence', (q) =>
  q.width > 38 &&
  q.width < 150 &&
  [null, 'text'].includes(kindOfWords(q.shortLeft)) &&
  (DAY_BEFORE.test(tail(q.c.left || q.flow.before, 5)) ||
    (q.width < DAY_WIDE && OF_DAY.test(tail(q.c.left || q.flow.before, 5))))
    ? q.ofText('date', null, q.c.left, 0.7, 'words')
    : null,
);

/** A table's cell under "Effective" or the like */
export const dayInTable = rule('day in a table', (q) =>
  q.b.made === 'cell' && (DAY_BEFORE.test(plain(q.c.colHead)) || DAY_BEFORE.test(plain(q.c.cell)))
    ? q.is('date', null, q.c.colHead || q.c.cell, 0.7, 'words')
    : null,
);
