/** What is asked of the list of deals: chips that narrow it, and lists kept under a name. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import type { KeptViews } from '@gatepath/contract';
import { DEAL_KINDS, DEAL_STATUSES, KIND_WORDS, STATUS_WORDS } from '@gatepath/core/deal';
import { upperFirst } from '@gatepath/core/text';
import { call } from '../../api/client';
import { useFirm, type DealAsk } from '../../api/hooks';
import { byKeys, usePalette } from '../../ui/hooks';
import { Icon } from '../../ui/icon';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, Card, Trouble } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body } from '../../ui/text';
import { FONT } from '../../ui/theme';

/** What the list shows before anything is asked: all but the archive. */
export const FIRST_ASK: DealAsk = { archived: false };

interface Props {
  ask: DealAsk;
  onAsk: (ask: DealAsk) => void;
}

/** An ask without what is not asked for. */
function without(ask: DealAsk): DealAsk {
  return Object.fromEntries(Object.entries(ask).filter(([, v]) => v !== undefined && v !== ''));
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function DealFilters({ ask, onAsk }: Props) {
  const firm = useFirm();
  const [keeping, setKeeping] = useState(false);
  const set = (change: { [K in keyof DealAsk]?: DealAsk[K] | undefined }) =>
    onAsk(without({ ...ask, ...change } as DealAsk));
  const members = firm.data?.members ?? [];
  const narrowed =
    Object.keys(ask).some((k) => k !== 'archived' && k !== 'order' && k !== 'search') || ask.archived !== false;
  return (
    <View style={{ gap: 8 }}>
      <ScrollView
        horizontal
        showsHorizontalScrollIndicator={false}
        {...byKeys('What is asked for')}
        contentContainerStyle={{ gap: 8, alignItems: 'center', paddingVertical: 2 }}
        testID="deal-filters"
      >
        <Pick
          label="Kind"
          value={ask.kind ? KIND_WORDS[ask.kind] : null}
          options={DEAL_KINDS.map((k) => ({ value: k, label: KIND_WORDS[k] }))}
          onPick={(kind) => set({ kind })}
        />
        <Pick
          label="Status"
          value={ask.status ? (ask.status === 'open' ? 'Open' : upperFirst(STATUS_WORDS[ask.status])) : null}
          options={[
            { value: 'open' as const, label: 'Open' },
            ...DEAL_STATUSES.map((s) => ({ value: s, label: upperFirst(STATUS_WORDS[s]) })),
          ]}
          onPick={(status) => set({ status })}
        />
        <Pick
          label="Who works on it"
          value={members.find((m) => m.id === ask.memberId)?.name ?? null}
          options={members.map((m) => ({ value: m.id, label: m.name }))}
          onPick={(memberId) => set({ memberId })}
        />
        <Toggle label="Something is late" on={!!ask.late} onPress={() => set({ late: ask.late ? undefined : true })} />
        <Toggle
          label="Waits for somebody"
          on={!!ask.waits}
          onPress={() => set({ waits: ask.waits ? undefined : true })}
        />
        <Toggle
          label="In the archive"
          on={ask.archived === true}
          onPress={() => set({ archived: ask.archived !== true })}
        />
        {ask.tag ? <Toggle label={`Tag: ${ask.tag}`} on onPress={() => set({ tag: undefined })} /> : null}
        <Kept ask={ask} onAsk={onAsk} onKeep={() => setKeeping(true)} />
        {narrowed ? (
          <Button kind="quiet" onPress={() => onAsk(FIRST_ASK)} testID="all-deals">
            All deals
          </Button>
        ) : null}
      </ScrollView>
      {keeping ? <Keep ask={ask} onClose={() => setKeeping(false)} /> : null}
    </View>
  );
}

function Chip({ label, on, onPress, menu }: { label: string; on: boolean; onPress: () => void; menu?: boolean }) {
  const p = usePalette();
  return (
    <Pressable
      role="button"
      aria-pressed={menu ? undefined : on}
      aria-haspopup={menu ? 'menu' : undefined}
      onPress={onPress}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 4,
        minHeight: 44,
        paddingHorizontal: 14,
        borderRadius: 22,
        borderWidth: 1,
        borderColor: on ? p.ink : p.rule,
        backgroundColor: on ? p.ink : p.sheet,
      }}
    >
      <Body style={{ color: on ? p.sheet : p.ink, fontFamily: on ? FONT.bold : FONT.text, fontSize: 15 }}>{label}</Body>
      {menu ? <Icon name="menu-down" size={18} color={on ? p.sheet : p.slate} /> : null}
    </Pressable>
  );
}

const Toggle = ({ label, on, onPress }: { label: string; on: boolean; onPress: () => void }) => (
  <Chip label={label} on={on} onPress={onPress} />
);

function Pick<T extends string>({
  label,
  value,
  options,
  onPick,
}: {
  label: string;
  value: string | null;
  options: { value: T; label: string }[];
  onPick: (value: T | undefined) => void;
}) {
  return (
    <DropMenu anchor={(open) => <Chip label={value ?? label} on={value !== null} onPress={open} menu />}>
      <MenuItem title={`${label}: any`} onPress={() => onPick(undefined)} />
      {options.map((o) => (
        <MenuItem key={o.value} title={o.label} onPress={() => onPick(o.value)} />
      ))}
    </DropMenu>
  );
}

const KEY = ['kept-views'];

function Kept({ onAsk, onKeep }: Props & { onKeep: () => void }) {
  const client = useQueryClient();
  const views = useQuery({ queryKey: KEY, queryFn: () => call('keptViews'), staleTime: 60_000 });
  const drop = useMutation({
    mutationFn: (viewId: string) => call('dropView', { params: { viewId } }),
    onSuccess: (all: KeptViews) => client.setQueryData(KEY, all),
  });
  const items = views.data?.items ?? [];
  return (
    <DropMenu anchor={(open) => <Chip label="Kept lists" on={false} onPress={open} menu />}>
      {items.map((v) => (
        <MenuItem
          key={v.id}
          title={v.own ? (v.shared ? `${v.name}, shared` : v.name) : `${v.name}, from ${v.by}`}
          onPress={() => onAsk(v.query)}
        />
      ))}
      <MenuItem title="Keep this list" onPress={onKeep} />
      {items
        .filter((v) => v.own)
        .map((v) => (
          <MenuItem key={`drop ${v.id}`} title={`Let “${v.name}” go`} onPress={() => drop.mutate(v.id)} />
        ))}
    </DropMenu>
  );
}

function Keep({ ask, onClose }: { ask: DealAsk; onClose: () => void }) {
  const client = useQueryClient();
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  const keep = useMutation({
    mutationFn: () => call('keepView', { body: { name, shared, query: ask } }),
    onSuccess: (all: KeptViews) => {
      client.setQueryData(KEY, all);
      onClose();
    },
  });
  return (
    <Card testID="keep-view">
      <Input label="Keep this list as" value={name} onChangeText={setName} testID="view-name" />
      <Switch label="Everybody in the firm sees it" on={shared} onChange={setShared} />
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
        <Button onPress={onClose}>Leave it</Button>
      </View>
    </Card>
  );
}
