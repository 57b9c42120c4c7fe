/** The field for a new password, shared by the forms that set one. */
import type { Control, FieldPath, FieldValues } from 'react-hook-form';
import { Field } from './field';
import { TEXT } from './words';

interface Props<F extends FieldValues> {
  control: Control<F>;
  label?: string;
  onSubmit: () => void;
}

export function NewPasswordField<F extends FieldValues & { password: string }>({
  control,
  label = TEXT.password,
  onSubmit,
}: Props<F>) {
  return (
    <Field
      control={control}
      name={'password' as FieldPath<F>}
      label={label}
      secret
      autoComplete="new-password"
      hint={TEXT.useAtLeastCharacters}
      onSubmit={onSubmit}
    />
  );
}
