/** Saved lists of deals: opened, saved, shared with the firm, deleted. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '../../api/act';
import { call } from '../../api/client';
import { keys } from '../../api/keys';
import type { DealAsk } from '../../api/hooks';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Pill } from '../../ui/pill';
import { ActError, Button, Card } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

export function SavedLists({ onAsk, onSave }: { onAsk: (ask: DealAsk) => void; onSave: () => void }) {
  const views = useQuery({ queryKey: keys.savedLists, queryFn: () => call('savedViews'), staleTime: 60_000 });
  const drop = useAct((viewId: string) => call('deleteView', { params: { viewId } }), { shows: keys.savedLists });
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
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  const keep = useAct(() => call('saveView', { body: { name, shared, query: ask } }), {
    shows: keys.savedLists,
    onDone: onClose,
  });
  return (
    <Card testID="keep-view">
      <Input label={TEXT.nameOfThisList} value={name} onChangeText={setName} testID="view-name" />
      <Switch label={TEXT.everyoneInTheFirmSees} on={shared} onChange={setShared} />
      <ActError of={keep} />
      <Row gap={8} align="stretch">
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
      </Row>
    </Card>
  );
}
