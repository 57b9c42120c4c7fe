/**
 * Small schemas that answers are put together from. They say what there is and bound nothing: an answer is the server's
 * own word. Objects refuse what they do not name, so that nothing is told that nobody meant to tell.
 */
import * as yup from 'yup';
import { object } from './fields';

/** Returns the schema of a text that is always present. */
export const text = () => yup.string().defined();
/** Returns the schema of an instant, ISO 8601 in UTC. */
export const moment = () => text().meta({ jsonSchema: { format: 'date-time' } });
/** Returns the schema of a calendar day, ISO 8601. */
export const calendarDay = () => text().meta({ jsonSchema: { format: 'date' } });
/** Returns the schema of a number that is always present. */
export const number = () => yup.number().defined();
/** Returns the schema of an integer that is always present. */
export const whole = () => yup.number().integer().defined();
/** Returns the schema of a boolean. */
export const flag = () => yup.boolean().defined();
/** Returns the schema of one of several fixed texts. */
export const oneOf = <const T extends readonly string[]>(values: T) => yup.string().oneOf<T[number]>(values).defined();
/** Returns the schema of a list, which may be empty. */
export const list = <T>(of: yup.ISchema<T>) => yup.array(of).defined();
/** Returns the schema of an object with these keys and no others. */
export const shape = <S extends yup.ObjectShape>(fields: S) => object(fields).defined();
/** Where a schema's name stands until it is described. */
export const NAME = 'x-name';
/** Returns the schema of an object that has a name of its own in the API description. */
export const named = <S extends yup.ObjectShape>(name: string, fields: S) =>
  shape(fields).meta({ jsonSchema: { [NAME]: name } });
/** Returns the schema of an object whose keys are not known beforehand. */
export const byName = <T, K extends string = string>(of: yup.Schema<T>) =>
  yup
    .mixed<Record<K, T>>((v): v is Record<K, T> => Object.values(v ?? {}).every((x) => of.isValidSync(x)))
    .defined()
    .meta({ values: of });

/** Whether two types take the same values and have the same keys. */
type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? ([keyof A] extends [keyof B] ? true : false) : false) : false;
/** Refuses, when compiled, a schema that is not exactly the schema of the core's type. */
export const of =
  <T>() =>
  <S extends yup.Schema>(schema: Same<yup.InferType<S>, T> extends true ? S : never): S =>
    schema;
