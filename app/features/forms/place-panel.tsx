/** A blank in the line for one of the roles: who fills it, with what, and what is asked. */
import { useState } from 'react';
import { View } from 'react-native';
import { INLINE_KINDS, type InlineKind, type PlaceRun } from '@gatepath/core/writing';
import { Input } from '../../ui/input';
import { Button, Card, Choice } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body } from '../../ui/text';
import { useAbout } from './about';
import { placeWords } from './nodes';

interface Props {
  onPick: (attrs: PlaceRun['attrs']) => void;
  onClose: () => void;
}

export function PlacePanel({ onPick, onClose }: Props) {
  const { roles } = useAbout();
  const [slot, setSlot] = useState(roles[0]?.id ?? '');
  const [kind, setKind] = useState<InlineKind>('text');
  const [label, setLabel] = useState('');
  const [required, setRequired] = useState(true);
  const [wide, setWide] = useState(false);
  return (
    <Card style={{ gap: 10, padding: 12 }} testID="place-panel">
      {roles.length ? (
        <>
          <Choice
            label="Whose place"
            wrap
            value={slot}
            options={roles.map((r) => ({ value: r.id, label: r.name }))}
            onChange={setSlot}
          />
          <Choice
            label="What they do"
            wrap
            value={kind}
            options={INLINE_KINDS.map((k) => ({ value: k, label: placeWords(k) }))}
            onChange={setKind}
          />
          <Input label="Filters" value={label} onChangeText={setLabel} maxLength={200} testID="place-label" />
          {kind === 'tick' ? null : <Switch label="Required" on={required} onChange={setRequired} />}
          {kind === 'text' ? <Switch label="A long line" on={wide} onChange={setWide} /> : null}
        </>
      ) : (
        <Body>Add a role first: whoever fills the place.</Body>
      )}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          disabled={!roles.length}
          onPress={() => onPick({ slot, kind, label: label.trim(), required, wide })}
          testID="put-place"
        >
          Insert
        </Button>
        <Button kind="quiet" onPress={onClose}>
          Close
        </Button>
      </View>
    </Card>
  );
}
