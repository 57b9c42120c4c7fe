/** A field that is saved when it is left, not at every key. */
import { useState } from 'react';
import { Input } from './input';

interface Props {
  label: string;
  value: string;
  onSave: (text: string) => void;
  multiline?: boolean;
  testID?: string;
}

export function LateInput({ label, value, onSave, multiline, testID }: Props) {
  const [text, setText] = useState<string | null>(null);
  return (
    <Input
      label={label}
      value={text ?? value}
      multiline={multiline}
      onChangeText={setText}
      onBlur={() => {
        if (text !== null && text !== value) onSave(text);
        setText(null);
      }}
      testID={testID}
    />
  );
}
