/** A day of the calendar, chosen with the browser's own picker, which keyboards and screen readers know. */
import { useState } from 'react';
import { usePalette } from './hooks';
import { Small } from './text';
import { FONT } from './theme';
import { Stack } from './layout';

interface Props {
  label: string;
  /** ISO 8601; empty for none. */
  value: string;
  onChange: (day: string) => void;
  min?: string;
  /** Called when the field is left. */
  onBlur?: () => void;
  testID?: string;
}

export function DayField({ label, value, onChange, min, onBlur, testID }: Props) {
  const p = usePalette();
  return (
    <Stack gap={4}>
      <Small>{label}</Small>
      <input
        type="date"
        aria-label={label}
        data-testid={testID}
        value={value}
        min={min}
        onBlur={onBlur}
        onChange={(e) => onChange(e.target.value)}
        style={{
          minHeight: 46,
          fontFamily: FONT.text,
          fontSize: 16,
          color: p.ink,
          backgroundColor: p.sheet,
          border: `1px solid ${p.slate}`,
          borderRadius: 6,
          padding: '0 12px',
          width: '100%',
          boxSizing: 'border-box',
        }}
      />
    </Stack>
  );
}

/** The same, saved when it is left: while a year is typed, the value passes through other days. */
export function LateDay({
  label,
  value,
  onSave,
  testID,
}: Pick<Props, 'label' | 'value' | 'testID'> & { onSave: (day: string) => void }) {
  const [written, setWritten] = useState<string | null>(null);
  return (
    <DayField
      label={label}
      value={written ?? value}
      onChange={setWritten}
      onBlur={() => {
        if (written !== null && written !== value) onSave(written);
        setWritten(null);
      }}
      testID={testID}
    />
  );
}
