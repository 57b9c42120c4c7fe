/** A place in the text for one of the roles: who fills it, with what, and what is asked. */
import { useState } from 'react';
import { INLINE_KINDS, type InlineKind, type PlaceRun } from '@gatepath/core/writing';
import { Input } from '../../ui/input';
import { Button, Card, Choice } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body } from '../../ui/text';
import { useAbout } from './about';
import { placeWords } from './nodes';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

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
    <Card style={{ padding: 12 }} testID="place-panel">
      {roles.length ? (
        <>
          <Choice
            label={TEXT.whosePlace}
            wrap
            value={slot}
            options={roles.map((r) => ({ value: r.id, label: r.name }))}
            onChange={setSlot}
          />
          <Choice
            label={TEXT.whatTheyDo}
            wrap
            value={kind}
            options={INLINE_KINDS.map((k) => ({ value: k, label: placeWords(k) }))}
            onChange={setKind}
          />
          <Input label={TEXT.filters} value={label} onChangeText={setLabel} maxLength={200} testID="place-label" />
          {kind === 'tick' ? null : <Switch label={TEXT.required} on={required} onChange={setRequired} />}
          {kind === 'text' ? <Switch label={TEXT.aLongLine} on={wide} onChange={setWide} /> : null}
        </>
      ) : (
        <Body>{TEXT.addARoleFirstWhoever}</Body>
      )}
      <Row gap={8} align="stretch">
        <Button
          disabled={!roles.length}
          onPress={() => onPick({ slot, kind, label: label.trim(), required, wide })}
          testID="put-place"
        >
          {TEXT.insert}
        </Button>
        <Button kind="quiet" onPress={onClose}>
          {TEXT.close}
        </Button>
      </Row>
    </Card>
  );
}
