/** Message texts: inserted into a message, and saved from one. */
import { useState } from 'react';
import { useMessageTexts, useTextActs } from '../../api/text-hooks';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { ActError, Button } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Small } from '../../ui/text';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

interface Props {
  /** The current message. */
  value: string;
  onChange: (text: string) => void;
}

export function TextMenu({ value, onChange }: Props) {
  const texts = useMessageTexts();
  const [saving, setSaving] = useState(false);
  const items = texts.data?.items ?? [];
  return (
    <Stack gap={8}>
      <Actions>
        {items.length ? (
          <DropMenu
            anchor={(open) => (
              <Button icon="plus" kind="quiet" onPress={open} testID="put-text">
                {TEXT.insertASavedText}
              </Button>
            )}
          >
            {items.map((t) => (
              <MenuItem
                key={t.id}
                title={t.own ? t.name : `${t.name} (${t.by})`}
                onPress={() => onChange(value.trim() ? `${value.trimEnd()}\n\n${t.text}` : t.text)}
              />
            ))}
          </DropMenu>
        ) : null}
        {value.trim() && !saving ? (
          <Button kind="quiet" onPress={() => setSaving(true)} testID="keep-text">
            {TEXT.saveThisMessageAs}
          </Button>
        ) : null}
      </Actions>
      {saving ? <SaveText text={value} onDone={() => setSaving(false)} /> : null}
    </Stack>
  );
}

function SaveText({ text, onDone }: { text: string; onDone: () => void }) {
  const { keep } = useTextActs();
  const [name, setName] = useState('');
  const [shared, setShared] = useState(true);
  return (
    <Stack gap={8}>
      <Input label={TEXT.nameOfTheText} value={name} onChangeText={setName} maxLength={60} testID="text-name" />
      <Switch label={TEXT.forEveryoneInTheFirm} on={shared} onChange={setShared} />
      <Small>
        {TEXT.namesOfPeopleStay}
        {TEXT.exampleTag}
        {TEXT.whereAnotherDealHasOthers}
      </Small>
      <ActError of={keep} />
      <Row gap={8} align="stretch">
        <Button
          disabled={!name.trim()}
          busy={keep.isPending}
          onPress={() => keep.mutate({ name, text, shared }, { onSuccess: onDone })}
          testID="keep-text-now"
        >
          {TEXT.keepIt}
        </Button>
        <Button kind="quiet" onPress={onDone}>
          {TEXT.cancel}
        </Button>
      </Row>
    </Stack>
  );
}
