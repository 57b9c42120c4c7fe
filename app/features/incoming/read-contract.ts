/** The type of an incoming contract after its words were read. */
import type { IncomingView } from '@gatepath/contract';
import type { FieldKey, FieldRead } from '@gatepath/core/abstract';

/** An incoming contract with its abstract. */
export type ReadContract = IncomingView & { abstract: NonNullable<IncomingView['abstract']> };

const isField = (field: string): field is FieldKey =>
  field === 'kind' || field === 'address' || field === 'city' || /^(?:fact|date)\./.test(field);

/** Returns the fields of a contract as the core has them. */
export const fieldsOf = (view: ReadContract): { fields: FieldRead[] } => ({
  fields: view.abstract.fields.flatMap((f) => (isField(f.field) ? [{ ...f, field: f.field }] : [])),
});
