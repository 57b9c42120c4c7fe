/**
 * Small schemas that answers are put together from. They say what there is and bound nothing: an answer is the server's
 * own word. Objects refuse what they do not name, so that nothing is told that nobody meant to tell.
 */
import * as yup from 'yup';
import { object } from './fields';

/** A text that is always there. */
export const text = () => yup.string().defined();
/** A moment, ISO 8601 in UTC. */
export const moment = () => text().meta({ jsonSchema: { format: 'date-time' } });
/** A calendar day, ISO 8601. */
export const calendarDay = () => text().meta({ jsonSchema: { format: 'date' } });
/** A number that is always there. */
export const number = () => yup.number().defined();
/** A whole number that is always there. */
export const whole = () => yup.number().integer().defined();
/** True or false. */
export const flag = () => yup.boolean().defined();
/** One of some words. */
export const oneOf = <const T extends readonly string[]>(values: T) => yup.string().oneOf<T[number]>(values).defined();
/** A list, which may be empty. */
export const list = <T>(of: yup.ISchema<T>) => yup.array(of).defined();
/** An object with these keys and no others. */
export const shape = <S extends yup.ObjectShape>(fields: S) => object(fields).defined();
/** Where a schema's name stands until it is described. */
export const NAME = 'x-name';
/** An object that the API's description gives a name of its own. */
export const named = <S extends yup.ObjectShape>(name: string, fields: S) =>
  shape(fields).meta({ jsonSchema: { [NAME]: name } });
/** Something by its name: keys are not known beforehand. */
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
