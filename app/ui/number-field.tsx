/** An integer within limits; anything else leaves the value as it was. */
import { useState } from 'react';
import { Input } from './input';

interface Props {
  label: string;
  value: number;
  min: number;
  max: number;
  onChange: (n: number) => void;
  testID?: string;
}

export function NumberField({ label, value, min, max, onChange, testID }: Props) {
  const [text, setText] = useState<string | null>(null);
  return (
    <Input
      label={label}
      value={text ?? String(value)}
      inputMode="numeric"
      maxLength={3}
      onChangeText={(t) => {
        setText(t);
        const n = Number(t);
        if (/^\d+$/.test(t.trim()) && n >= min && n <= max) onChange(n);
      }}
      onBlur={() => setText(null)}
      error={text !== null && !(/^\d+$/.test(text.trim()) && Number(text) >= min && Number(text) <= max)}
      testID={testID}
    />
  );
}
