/** Small schemas that bodies are put together from. */
import * as yup from 'yup';
import { isDay } from '@gatepath/core/calendar';
import { isClean, isEmail, oneLine } from '@gatepath/core/text';

/** The type a validation error has when a text holds what no text may hold. */
export const UNCLEAN = 'unclean';
const UNCLEAN_WORDS = 'This text contains characters that cannot be saved. Type it again.';

/**
 * Returns the schema of an object that lists its keys and refuses all others, so that an unknown key never reaches what
 * is made of a body.
 */
export const object = <S extends yup.ObjectShape>(shape: S) =>
  yup.object(shape).noUnknown(true, 'holds something that does not belong there');

/** Returns the schema of a text of several lines, kept as written, of at most `max` UTF-16 units. */
export const text = (max: number) =>
  yup
    .string()
    .max(max)
    .test(UNCLEAN, UNCLEAN_WORDS, (v) => v === undefined || v === null || v.length > max || isClean(v));
/** Returns the same schema, without white space at the ends. Yup's own `trim` throws on values that are not text. */
export const trimmed = (max: number) => text(max).transform((v: unknown) => (typeof v === 'string' ? v.trim() : v));
/** Returns the schema of one line: trimmed, without line breaks and without control characters. */
export const line = (max: number) =>
  text(max).transform((v: unknown) => (typeof v === 'string' && v.length <= max * 2 ? oneLine(v) : v));

/** Returns the schema of an id as the server makes them, or of a name of at most that length. */
export const id = () =>
  yup
    .string()
    .min(1)
    .max(200)
    .matches(/^[\w.:-]+$/, 'is not an id');

/** Returns the schema of an email address, or null. */
export const email = () =>
  line(254).test('address', 'This is not an email address, like name@example.com.', (v) => !v || isEmail(v));
/** Returns the schema of a day that exists, in the years 1900 to 2200: `2026-11-23`. */
export const day = () =>
  yup
    .string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, 'is not a day, like 2026-11-23')
    .test(
      'day',
      'is not a day of the calendar between 1900 and 2200',
      (v) => v === undefined || v === null || isDay(v),
    );
/**
 * Returns the schema of a length on a page, in points. The bounds are generous, because positions are checked against
 * their page elsewhere.
 */
export const points = () => yup.number().min(-20000).max(20000);

/** A rectangle on a page, in points from its top left. */
export const rect = object({
  x: points().required(),
  y: points().required(),
  w: points().min(1).required(),
  h: points().min(1).required(),
});

/** Returns the schema of a language tag (BCP 47), as its file of words is named. */
export const language = () => yup.string().matches(/^[a-z]{2,3}(-[A-Za-z]{2,8})?$/, 'is not a language, like en or es');

/** A gate of a path. */
export const gate = object({
  id: id().required(),
  partyIds: yup.array(id().required()).max(60).required(),
  need: yup.string().oneOf(['any'] as const),
});
