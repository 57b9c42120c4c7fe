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
    <DropMenu anchor={(open) => <Pill label="Saved lists" on={false} onPress={open} menu />}>
      {items.map((v) => (
        <MenuItem
          key={v.id}
          title={v.own ? (v.shared ? `${v.name}, shared` : v.name) : `${v.name}, from ${v.by}`}
          onPress={() => onAsk(v.query)}
        />
      ))}
      <MenuItem title="Save this list" onPress={onSave} />
      {items
        .filter((v) => v.own)
        .map((v) => (
          <MenuItem key={`drop ${v.id}`} title={`Let “${v.name}” go`} onPress={() => drop.mutate(v.id)} />
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
      <Input label="Name of this list" value={name} onChangeText={setName} testID="view-name" />
      <Switch label="Everyone in the firm sees it" on={shared} onChange={setShared} />
      {keep.isError ? <Trouble error={keep.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          kind="main"
          busy={keep.isPending}
          disabled={!name.trim()}
          onPress={() => keep.mutate()}
          testID="keep-now"
        >
          Keep it
        </Button>
        <Button onPress={onClose}>Cancel</Button>
      </View>
    </Card>
  );
}
