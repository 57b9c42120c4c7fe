/** Values of several forms: told apart by looking at them, and described as what they are. */
import * as yup from 'yup';
import { object } from './fields';

declare module 'yup' {
  interface CustomSchemaMetadata {
    /** Told beside, or in place of, what the schema says of itself. */
    jsonSchema?: object;
    /** The forms it may have. */
    forms?: yup.Schema[];
    /** Of what its values are, by any name. */
    values?: yup.Schema;
  }
}

/** A schema that is chosen by looking at the value. */
export type Choice<T> = ReturnType<typeof yup.lazy<yup.Schema<T>>>;

/** In a description's context: all forms are wanted, and not the one of a value. */
export const DESCRIBING = { describing: true };

/**
 * Returns the schema of a value that has one of several forms.
 *
 * @param forms all there are, for the description
 * @param pick the one to check a value by; one of `forms`, or one that refuses with a sentence
 */
export function choiceOf<T>(forms: yup.Schema[], pick: (value: unknown) => yup.Schema): Choice<T> {
  // As lazies are: what may be absent is told by the object it stands in.
  const described = yup.mixed().defined().meta({ forms });
  return yup.lazy((value: unknown, options: { context?: unknown }) =>
    options.context === DESCRIBING ? described : pick(value),
  ) as Choice<T>;
}

type Forms<K extends string, M extends Record<string, yup.ObjectShape>> = {
  [F in keyof M]: { [X in K]: F } & yup.InferType<yup.ObjectSchema<yup.TypeFromShape<M[F], yup.AnyObject>>>;
}[keyof M];

/**
 * Returns the schema of objects of several forms, told apart by the value under `key`.
 *
 * @param unknown what is said to a word that is none of them
 * @param nullable whether null stands for none
 */
export function choiceBy<
  const K extends string,
  M extends Record<string, yup.ObjectShape>,
  const N extends boolean = false,
>(
  key: K,
  shapes: M,
  { unknown = 'is not one we know', nullable }: { unknown?: string; nullable?: N } = {},
): Choice<Forms<K, M> | (N extends true ? null : never)> {
  const words = Object.keys(shapes);
  const forms = new Map(
    words.map((word) => [word, object({ [key]: yup.string().oneOf([word]).required(), ...shapes[word] }).defined()]),
  );
  const none = object({ [key]: yup.string().oneOf(words, unknown).required() });
  const nothing = yup
    .mixed()
    .nullable()
    .oneOf([null])
    .defined()
    .meta({ jsonSchema: { type: 'null' } });
  return choiceOf([...forms.values(), ...(nullable ? [nothing] : [])], (value) => {
    if (nullable && value === null) return nothing;
    const word: unknown = typeof value === 'object' && value !== null ? Reflect.get(value, key) : undefined;
    return (typeof word === 'string' && forms.get(word)) || none;
  });
}
