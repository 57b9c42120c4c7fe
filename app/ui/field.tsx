/** A text field with its label, hint and error, for forms held by react-hook-form. */
import { useController, type Control, type FieldValues, type Path } from 'react-hook-form';
import { View, type KeyboardTypeOptions } from 'react-native';
import { HelperText } from 'react-native-paper';
import { Input } from './input';

interface Props<T extends FieldValues> {
  control: Control<T>;
  name: Path<T>;
  label: string;
  hint?: string;
  secret?: boolean;
  keyboard?: KeyboardTypeOptions;
  autoComplete?: string;
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
        autoComplete={autoComplete as never}
        autoCapitalize={keyboard === 'email-address' ? 'none' : undefined}
        onSubmitEditing={onSubmit}
        multiline={multiline}
        aria-invalid={!!error}
      />
      {error || hint ? <HelperText type={error ? 'error' : 'info'}>{error ?? hint}</HelperText> : null}
    </View>
  );
}

/** Puts the server's field errors where the fields are; returns whether there were any. */
export function showFieldErrors(error: unknown, setError: (name: never, error: { message: string }) => void): boolean {
  const fields = (error as { problem?: { fields?: Record<string, string> } } | null)?.problem?.fields ?? {};
  for (const [name, message] of Object.entries(fields)) setError(name as never, { message });
  return Object.keys(fields).length > 0;
}
