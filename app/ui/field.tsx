/** A text field with its label, hint and error, for forms held by react-hook-form. */
import type { ComponentProps } from 'react';
import { useController, type Control, type FieldValues, type Path, type UseFormSetError } from 'react-hook-form';
import { View, type KeyboardTypeOptions } from 'react-native';
import { HelperText } from 'react-native-paper';
import { ApiError } from '../api/client';
import { Input } from './input';

interface Props<T extends FieldValues> {
  control: Control<T>;
  name: Path<T>;
  label: string;
  hint?: string;
  secret?: boolean;
  keyboard?: KeyboardTypeOptions;
  autoComplete?: ComponentProps<typeof Input>['autoComplete'];
  onSubmit?: () => void;
  multiline?: boolean;
}

export function Field<T extends FieldValues>({
  control,
  name,
  label,
  hint,
  secret,
  keyboard,
  autoComplete,
  onSubmit,
  multiline,
}: Props<T>) {
  const { field, fieldState } = useController({ control, name });
  const error = fieldState.error?.message;
  return (
    <View>
      <Input
        label={label}
        testID={`field-${name}`}
        value={String(field.value ?? '')}
        onChangeText={field.onChange}
        onBlur={field.onBlur}
        error={!!error}
        secureTextEntry={secret}
        keyboardType={keyboard}
        autoComplete={autoComplete}
        autoCapitalize={keyboard === 'email-address' ? 'none' : undefined}
        onSubmitEditing={onSubmit}
        multiline={multiline}
        aria-invalid={!!error}
      />
      {error || hint ? <HelperText type={error ? 'error' : 'info'}>{error ?? hint}</HelperText> : null}
    </View>
  );
}

/** Shows the server's field errors at their fields. Returns whether there were any. */
export function showFieldErrors<T extends FieldValues>(error: unknown, setError: UseFormSetError<T>): boolean {
  const fields = error instanceof ApiError ? Object.entries(error.fields) : [];
  // An error of no field of this form is shown with the form's other errors.
  for (const [name, message] of fields) setError(name as Path<T>, { message });
  return fields.length > 0;
}
