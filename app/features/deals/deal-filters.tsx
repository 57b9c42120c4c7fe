/** The filters of the list of deals. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ScrollView } from 'react-native';
import { DEAL_KINDS, DEAL_STATUSES, FOR_WHOM, forWhomWords, KIND_WORDS, STATUS_WORDS } from '@gatepath/core/deal';
import { SIDE_WORDS, SIDES, upperFirst } from '@gatepath/core/text';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { useFirm, type DealAsk } from '../../api/hooks';
import { byKeys } from '../../ui/hooks';
import { Pill, PillMenu } from '../../ui/pill';
import { Button } from '../../ui/pieces';
import { SaveList, SavedLists } from './saved-lists';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

/** The filter at first: all but the archive. */
export const FIRST_ASK: DealAsk = { archived: false };

/** Returns whether anything but words narrows the list. */
export const isNarrowed = ({ archived, order: _order, search: _search, ...rest }: DealAsk): boolean =>
  archived !== false || Object.values(rest).some((v) => v !== undefined);

type Change = { [K in keyof DealAsk]?: DealAsk[K] | undefined };

/** Returns a filter with a change, without empty values. */
function changed(ask: DealAsk, change: Change): DealAsk {
  return Object.fromEntries(Object.entries({ ...ask, ...change }).filter(([, v]) => v !== undefined && v !== ''));
}

const DUE = [
  { value: 'late' as const, label: TEXT.somethingIsLate },
  { value: 'week' as const, label: TEXT.dueWithinAWeek },
];
/** Gates that can be filtered by; few packets have more. */
const GATES = [1, 2, 3, 4, 5, 6].map((n) => ({ value: String(n), label: TEXT.atGate(n) }));

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function DealFilters({ ask, onAsk }: { ask: DealAsk; onAsk: (ask: DealAsk) => void }) {
  const firm = useFirm();
  const tags = useQuery({ queryKey: keys.dealTags, queryFn: () => call('dealTags'), staleTime: 60_000 });
  const [saving, setSaving] = useState(false);
  const set = (change: Change) => onAsk(changed(ask, change));
  return (
    <Stack gap={8}>
      <ScrollView
        horizontal
        showsHorizontalScrollIndicator={false}
        {...byKeys(TEXT.filters)}
        contentContainerStyle={{ gap: 8, alignItems: 'center', paddingVertical: 2 }}
        testID="deal-filters"
      >
        <PillMenu
          label={TEXT.kind}
          value={ask.kind}
          options={DEAL_KINDS.map((k) => ({ value: k, label: KIND_WORDS[k] }))}
          onChoose={(kind) => set({ kind })}
        />
        <PillMenu
          label={TEXT.status}
          value={ask.status}
          options={[
            { value: 'open', label: TEXT.open },
            ...DEAL_STATUSES.map((s) => ({ value: s, label: upperFirst(STATUS_WORDS[s]) })),
          ]}
          onChoose={(status) => set({ status })}
        />
        <PillMenu label={TEXT.due} value={ask.due} options={DUE} onChoose={(due) => set({ due })} />
        <PillMenu
          label={TEXT.heldUp}
          value={ask.holdUp}
          options={SIDES.map((s) => ({ value: s, label: TEXT.waitsFor(SIDE_WORDS[s]) }))}
          onChoose={(holdUp) => set({ holdUp })}
        />
        <PillMenu
          label={TEXT.gate}
          value={ask.gate === undefined ? undefined : String(ask.gate)}
          options={GATES}
          onChoose={(gate) => set({ gate: gate === undefined ? undefined : Number(gate) })}
        />
        <PillMenu
          label={TEXT.forWhom}
          value={ask.forWhom}
          options={FOR_WHOM.map((w) => ({ value: w, label: upperFirst(forWhomWords(w)) }))}
          onChoose={(forWhom) => set({ forWhom })}
        />
        <PillMenu
          label={TEXT.assignedTo}
          value={ask.memberId}
          options={(firm.data?.members ?? []).map((m) => ({ value: m.id, label: m.name }))}
          onChoose={(memberId) => set({ memberId })}
        />
        {tags.data?.tags.length ? (
          <PillMenu
            label={TEXT.tag}
            value={ask.tag}
            options={tags.data.tags.map((t) => ({ value: t, label: t }))}
            onChoose={(tag) => set({ tag })}
          />
        ) : null}
        <Pill
          label={TEXT.inTheArchive}
          on={ask.archived === true}
          onPress={() => set({ archived: ask.archived !== true })}
        />
        <SavedLists onAsk={onAsk} onSave={() => setSaving(true)} />
        {isNarrowed(ask) ? (
          <Button kind="quiet" onPress={() => onAsk(FIRST_ASK)} testID="all-deals">
            {TEXT.allDeals}
          </Button>
        ) : null}
      </ScrollView>
      {saving ? <SaveList ask={ask} onClose={() => setSaving(false)} /> : null}
    </Stack>
  );
}
