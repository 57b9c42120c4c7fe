/** Texts that recur: put into a message, and kept from one. */
import { useState } from 'react';
import { View } from 'react-native';
import { useMessageTexts, useTextActs } from '../../api/text-hooks';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, Trouble } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Small } from '../../ui/text';
import { TEXT } from './words';

interface Props {
  /** The message as it stands. */
  value: string;
  onChange: (text: string) => void;
}

export function TextMenu({ value, onChange }: Props) {
  const texts = useMessageTexts();
  const [saving, setSaving] = useState(false);
  const items = texts.data?.items ?? [];
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
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
      </View>
      {saving ? <SaveText text={value} onDone={() => setSaving(false)} /> : null}
    </View>
  );
}

function SaveText({ text, onDone }: { text: string; onDone: () => void }) {
  const { keep } = useTextActs();
  const [name, setName] = useState('');
  const [shared, setShared] = useState(true);
  return (
    <View style={{ gap: 8 }}>
      <Input label={TEXT.nameOfTheText} value={name} onChangeText={setName} maxLength={60} testID="text-name" />
      <Switch label={TEXT.forEveryoneInTheFirm} on={shared} onChange={setShared} />
      <Small>
        {TEXT.namesOfPeopleStay}
        {TEXT.exampleTag}
        {TEXT.whereAnotherDealHasOthers}
      </Small>
      {keep.isError ? <Trouble error={keep.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
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
      </View>
    </View>
  );
}
