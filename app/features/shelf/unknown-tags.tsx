/** Values that papers of a kit need and the deal does not have, to fill in here. */
import { useState } from 'react';
import { View } from 'react-native';
import type { KitTrial } from '@gatepath/contract';
import type { FactDef, FactValue } from '@gatepath/core/deal';
import { count } from '@gatepath/core/text';
import { Card, Note } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Heading, Small } from '../../ui/text';
import { FactField } from '../facts/fact-field';
import { TEXT } from './words';

type Values = Record<string, FactValue | null>;

interface Props {
  trial: KitTrial;
  values: Values;
  onChange: (values: Values) => void;
  keep: boolean;
  onSave: (keep: boolean) => void;
}

/** Returns a tag as a fact to ask for; names of people are not facts. */
function asFact(t: KitTrial['unknown'][number]): FactDef[] {
  return t.from === 'people' || t.type === 'names' ? [] : [{ ...t, type: t.type, kinds: [] }];
}

export function UnknownTags({ trial, values, onChange, keep, onSave }: Props) {
  // A value that was asked for stays there when it is filled in, to be corrected.
  const [asked, setAsked] = useState<FactDef[]>([]);
  const fresh = trial.unknown.flatMap(asFact).filter((t) => !asked.some((a) => a.key === t.key));
  if (fresh.length) setAsked([...asked, ...fresh]);
  if (!asked.length) return null;
  const left = asked.filter((t) => trial.unknown.some((u) => u.key === t.key)).length;
  return (
    <Card testID="unknown-tags">
      <Heading>{left ? TEXT.thePapersNeed(count(left, 'thing')) : TEXT.allKnown}</Heading>
      {asked.map((t) => (
        <FactField
          key={t.key}
          def={t}
          value={values[t.key] ?? null}
          onChange={(w) => onChange({ [t.key]: 'wrong' in w ? null : w.value })}
        />
      ))}
      <View>
        <Switch label={TEXT.saveTheseToTheDeal} on={keep} onChange={onSave} testID="keep-values" />
        {keep ? null : <Small>{TEXT.theyAppearOnlyOnThis}</Small>}
      </View>
      {left ? null : <Note tone="good" title={TEXT.nothingIsMissing} />}
    </Card>
  );
}
