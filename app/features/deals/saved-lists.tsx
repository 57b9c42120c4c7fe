/** Lists of deals kept under a name: gone back to, kept, shared with the firm, let go. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import type { SavedViews } from '@gatepath/contract';
import { call } from '../../api/client';
import type { DealAsk } from '../../api/hooks';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Pill } from '../../ui/pill';
import { Button, Card, Trouble } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { TEXT } from './words';

const KEY = ['kept-views'];

export function SavedLists({ onAsk, onSave }: { onAsk: (ask: DealAsk) => void; onSave: () => void }) {
  const client = useQueryClient();
  const views = useQuery({ queryKey: KEY, queryFn: () => call('savedViews'), staleTime: 60_000 });
  const drop = useMutation({
    mutationFn: (viewId: string) => call('deleteView', { params: { viewId } }),
    onSuccess: (all: SavedViews) => client.setQueryData(KEY, all),
  });
  const items = views.data?.items ?? [];
  return (
    <DropMenu anchor={(open) => <Pill label={TEXT.savedLists} on={false} onPress={open} menu />}>
      {items.map((v) => (
        <MenuItem
          key={v.id}
          title={v.own ? (v.shared ? TEXT.shared(v.name) : v.name) : TEXT.from(v.name, v.by)}
          onPress={() => onAsk(v.query)}
        />
      ))}
      <MenuItem title={TEXT.saveThisList} onPress={onSave} />
      {items
        .filter((v) => v.own)
        .map((v) => (
          <MenuItem key={`drop ${v.id}`} title={TEXT.letGo(v.name)} onPress={() => drop.mutate(v.id)} />
        ))}
    </DropMenu>
  );
}

export function SaveList({ ask, onClose }: { ask: DealAsk; onClose: () => void }) {
  const client = useQueryClient();
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  const keep = useMutation({
    mutationFn: () => call('saveView', { body: { name, shared, query: ask } }),
    onSuccess: (all: SavedViews) => {
      client.setQueryData(KEY, all);
      onClose();
    },
  });
  return (
    <Card testID="keep-view">
      <Input label={TEXT.nameOfThisList} value={name} onChangeText={setName} testID="view-name" />
      <Switch label={TEXT.everyoneInTheFirmSees} on={shared} onChange={setShared} />
      {keep.isError ? <Trouble error={keep.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          kind="main"
          busy={keep.isPending}
          disabled={!name.trim()}
          onPress={() => keep.mutate()}
          testID="keep-now"
        >
          {TEXT.keepIt}
        </Button>
        <Button onPress={onClose}>{TEXT.cancel}</Button>
      </View>
    </Card>
  );
}
