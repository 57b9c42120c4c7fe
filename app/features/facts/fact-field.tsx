/** A field for a fact by its type: yes and no, a choice, a number, a day, text. "Not known" is one of the answers. */
import { useState } from 'react';
import { View } from 'react-native';
import { factWords, wrongWith, type FactDef, type FactValue } from '@gatepath/core/deal';
import { DayField } from '../../ui/day-field';
import { Input } from '../../ui/input';
import { Choice } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

/** The content of the field while it is edited: a value, nothing for "not known", or text that is not a value yet. */
export type Written = { value: FactValue | null } | { wrong: string };

/** Returns the value of a fact from its field. */
export function readFact(def: FactDef, text: string): Written {
  const t = text.trim();
  if (!t) return { value: null };
  const value =
    def.type === 'number' || def.type === 'money' || def.type === 'year'
      ? /^\$?\d[\d,]*(?:\.\d+)?$/.test(t)
        ? Number(t.replace(/[$,]/g, ''))
        : NaN
      : t;
  const wrong = wrongWith(def, value);
  return wrong ? { wrong } : { value };
}

interface Props {
  def: FactDef;
  value: FactValue | null;
  onChange: (written: Written) => void;
  onSubmit?: () => void;
}

export function FactField({ def, value, onChange, onSubmit }: Props) {
  const [text, setText] = useState(value === null || typeof value === 'boolean' ? '' : String(value));
  const [wrong, setWrong] = useState('');
  const testID = `fact-${def.key}`;
  if (def.type === 'flag' || def.type === 'choice') {
    const options =
      def.type === 'flag'
        ? [
            { value: 'yes', label: TEXT.yes },
            { value: 'no', label: 'No' },
          ]
        : (def.options ?? []);
    const now = value === null ? '' : def.type === 'flag' ? (value === true ? 'yes' : 'no') : String(value);
    return (
      <Stack gap={4} testID={testID}>
        <Small>{def.label}</Small>
        <Choice
          label={def.label}
          value={now}
          wrap
          options={[...options, { value: '', label: TEXT.notKnown }]}
          onChange={(v) => onChange({ value: v === '' ? null : def.type === 'flag' ? v === 'yes' : v })}
        />
      </Stack>
    );
  }
  const write = (t: string) => {
    setText(t);
    const written = readFact(def, t);
    setWrong('wrong' in written ? written.wrong : '');
    onChange(written);
  };
  if (def.type === 'day') return <DayField label={def.label} value={text} onChange={write} testID={testID} />;
  return (
    <View>
      <Input
        label={`${def.label}${def.unit ? `, ${def.unit}` : ''}`}
        value={text}
        onChangeText={write}
        inputMode={def.type === 'text' ? 'text' : 'decimal'}
        maxLength={200}
        error={!!wrong}
        onSubmitEditing={onSubmit}
        testID={testID}
      />
      {wrong ? <Small tone="stop">{wrong}</Small> : null}
    </View>
  );
}

/** Returns a fact and its value as lists show it. */
export const factLine = (def: FactDef, value: FactValue) => `${def.label}: ${factWords(def, value)}`;
