/** What clients send through their signing links. */
import * as yup from 'yup';
import { type Hand, MAX_TEXT_LINES, SCRIPT_FACES } from '@gatepath/core/packet';
import { choiceBy } from './choice';
import { id, language, line, object, text, trimmed } from './fields';

const picture = object({
  sha256: yup
    .string()
    .matches(/^[0-9a-f]{64}$/)
    .required(),
  width: yup.number().integer().min(1).max(4000).required(),
  height: yup.number().integer().min(1).max(4000).required(),
});

/** The most numbers in all strokes of a drawing: some minutes of an unbroken line. */
const MAX_NUMBERS = 40_000;
const MAX_STROKES = 400;

/** Checks a drawing in one pass by hand, because a schema for each number would take seconds for a long one. */
function isStrokes(value: unknown): boolean {
  if (!Array.isArray(value) || value.length > MAX_STROKES) return false;
  let numbers = 0;
  const strokes: unknown[] = value;
  for (const stroke of strokes) {
    if (!Array.isArray(stroke) || stroke.length < 2 || stroke.length % 2) return false;
    numbers += stroke.length;
    if (numbers > MAX_NUMBERS) return false;
    for (const n of stroke) if (typeof n !== 'number' || !(n >= -100 && n <= 6000)) return false;
  }
  return true;
}

const drawing = object({
  width: yup.number().min(10).max(5000).required(),
  height: yup.number().min(10).max(5000).required(),
  strokes: yup
    .mixed<number[][]>()
    .required()
    .test('empty', 'Draw something first.', (v) => !Array.isArray(v) || v.length > 0)
    .test('strokes', 'A drawing is at most 400 strokes of x, y pairs, with 40,000 numbers in all.', isStrokes)
    .meta({ jsonSchema: { type: 'array', items: { type: 'array', items: { type: 'number' } } } }),
});

const common = { keep: yup.boolean(), actId: id() };
/** A hand, and whether to keep it for the person's other packets of the firm. */
export const handBody = choiceBy(
  'form',
  {
    picture: {
      signature: picture.required(),
      initials: picture.required(),
      initialsText: line(8).required(),
      ...common,
    },
    drawn: {
      signature: drawing.required(),
      initials: drawing.required(),
      initialsText: line(8).required(),
      ...common,
    },
    typed: {
      face: yup.string().oneOf(SCRIPT_FACES).required(),
      signature: line(80).required('Write your name.'),
      initials: line(8).required('Write your initials.'),
      ...common,
    },
  },
  { unknown: 'Choose a typed or a drawn signature.' },
) satisfies yup.ISchema<Hand>;
/** The type of `handBody`. */
export type HandBody = yup.InferType<typeof handBody>;

/** Every act carries an id made on the client: sent twice, it counts once. */
export const agreementBody = object({ agreement: line(20).required(), actId: id() });
/** Body of filling a mark. */
export const fillBody = object({
  actId: id().required(),
  /** What was written; for ticks and choices any word, and nothing to take it back. */
  text: text(MAX_TEXT_LINES),
  /** How far the log went in the view that is shown: the answer is then only what changed since. */
  since: yup.number().integer().min(0),
});
/** The type of `fillBody`. */
export type FillBody = yup.InferType<typeof fillBody>;
/** Body of finishing. */
export const finishBody = object({ actId: id().required() });
/** Body of declining. */
export const declineBody = object({
  /** The core asks for it in the client's own language. */
  reason: trimmed(600).default(''),
});
/** The type of `declineBody`. */
export type DeclineBody = yup.InferType<typeof declineBody>;
/** Body of asking the sender. */
export const questionBody = object({ actId: id().required(), text: trimmed(2000).default('') });
/** The type of `questionBody`. */
export type QuestionBody = yup.InferType<typeof questionBody>;
/** Body of handing over. */
export const handOverBody = object({
  name: line(120).defined().default(''),
  email: line(254).defined().default(''),
  phone: line(40).nullable().default(null),
  reason: trimmed(600).defined().default(''),
});
/** The type of `handOverBody`. */
export type HandOverBody = yup.InferType<typeof handOverBody>;
/** Body of giving the code of the second step. */
export const codeBody = object({ code: line(40).default('') });
/** Body of choosing a language. */
export const languageBody = object({ language: language().required() });
