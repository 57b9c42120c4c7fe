/** A contract whose words have been read. */
import type { IncomingView } from '@gatepath/contract';
import type { FieldKey, FieldRead } from '@gatepath/core/abstract';

/** A contract with what it says. */
export type ReadContract = IncomingView & { abstract: NonNullable<IncomingView['abstract']> };

const isField = (field: string): field is FieldKey =>
  field === 'kind' || field === 'address' || field === 'city' || /^(?:fact|date)\./.test(field);

/** Returns the fields of a contract as the core has them. */
export const fieldsOf = (view: ReadContract): { fields: FieldRead[] } => ({
  fields: view.abstract.fields.flatMap((f) => (isField(f.field) ? [{ ...f, field: f.field }] : [])),
});
