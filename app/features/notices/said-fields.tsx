/** What the papers of a notice say, to fill in for everyone or for one home. */
import { useState } from 'react';
import type { FactDef, FactValue } from '@gatepath/core/deal';
import { FactField } from '../facts/fact-field';

type Values = Record<string, FactValue | null>;

/** Tracks what was changed in the fields, and whether a field has no value yet. */
export function useSaid() {
  const [said, setSaid] = useState<Values>({});
  const [unfit, setUnfit] = useState<Record<string, boolean>>({});
  return {
    said,
    changed: Object.keys(said).length > 0,
    fits: !Object.values(unfit).some(Boolean),
    clear: () => setSaid({}),
    set: (key: string, value: FactValue | null) => setSaid((was) => ({ ...was, [key]: value })),
    setUnfit: (key: string, is: boolean) => setUnfit((was) => ({ ...was, [key]: is })),
  };
}

interface Props {
  facts: readonly FactDef[];
  values: Readonly<Record<string, FactValue>>;
  on: ReturnType<typeof useSaid>;
}

export function SaidFields({ facts, values, on }: Props) {
  return facts.map((def) => (
    <FactField
      key={def.key}
      def={def}
      value={on.said[def.key] ?? values[def.key] ?? null}
      onChange={(written) => {
        on.setUnfit(def.key, 'wrong' in written);
        if (!('wrong' in written)) on.set(def.key, written.value);
      }}
    />
  ));
}
