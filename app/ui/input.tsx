/** Paper's outlined text field; its floating label is only drawn, so assistive tools are told it too. */
import type { ComponentProps } from 'react';
import { TextInput } from 'react-native-paper';

type Props = Omit<ComponentProps<typeof TextInput>, 'label' | 'mode'> & { label: string };

export function Input({ label, ...rest }: Props) {
  return <TextInput mode="outlined" label={label} accessibilityLabel={label} {...rest} />;
}
