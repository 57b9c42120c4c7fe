/** Paper's outlined text field. Its floating label is only drawn, so screen readers get it as an attribute. */
import type { ComponentProps } from 'react';
import { TextInput } from 'react-native-paper';

type Props = Omit<ComponentProps<typeof TextInput>, 'label' | 'mode'> & { label: string };

export function Input({ label, ...rest }: Props) {
  return <TextInput mode="outlined" label={label} accessibilityLabel={label} {...rest} />;
}
