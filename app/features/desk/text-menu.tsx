/** Texts that recur: put into a message, and kept from one. */
import { useState } from 'react';
import { View } from 'react-native';
import { useMessageTexts, useTextActs } from '../../api/text-hooks';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, Trouble } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Small } from '../../ui/text';

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
                Insert a saved text
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
            Save this message as a text
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
      <Input label="Name of the text" value={name} onChangeText={setName} maxLength={60} testID="text-name" />
      <Switch label="For everyone in the firm" on={shared} onChange={setShared} />
      <Small>
        Names of people stay in it as they are. Write tags like {'{seller 1}'} where another deal has others.
      </Small>
      {keep.isError ? <Trouble error={keep.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          disabled={!name.trim()}
          busy={keep.isPending}
          onPress={() => keep.mutate({ name, text, shared }, { onSuccess: onDone })}
          testID="keep-text-now"
        >
          Keep it
        </Button>
        <Button kind="quiet" onPress={onDone}>
          Cancel
        </Button>
      </View>
    </View>
  );
}
