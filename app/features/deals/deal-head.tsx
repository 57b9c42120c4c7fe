/** The header of a deal: kind, for whom, status, its sentence, and the rarer acts behind one button. */
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { DealPatch, DealView, FirmView } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { FOR_WHOM_OF, forWhomWords, KIND_WORDS, STATUS_WORDS, STATUSES_OF } from '@gatepath/core/deal';
import { upperFirst } from '@gatepath/core/text';
import { useDealChanges } from '../../api/deal-hooks';
import { useFirm } from '../../api/hooks';
import { usePalette } from '../../ui/hooks';
import { LateDay } from '../../ui/day-field';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { ActError, Button, Choice, IconButton } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Small, Strong, Title } from '../../ui/text';
import { CalendarFeed } from './calendar-feed';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function DealHead({ deal }: { deal: DealView }) {
  const p = usePalette();
  const { set } = useDealChanges(deal.id);
  const [more, setMore] = useState(false);
  const { readiness: r } = deal;
  const color = r.late.length ? p.wine : r.of > 0 && r.met === r.of ? p.moss : p.ochre;
  const kind = `${KIND_WORDS[deal.kind]}, ${forWhomWords(deal.forWhom)}`;
  return (
    <Stack gap={8}>
      <Row gap={8} align="start">
        <Stack grow>
          <Small>{[kind, deal.city].filter(Boolean).join(' · ')}</Small>
          <Title>{deal.address}</Title>
        </Stack>
        <IconButton
          name={more ? 'close' : 'more'}
          label={more ? TEXT.close : TEXT.moreAboutThisDeal}
          onPress={() => setMore(!more)}
          testID="deal-more"
        />
      </Row>
      <Strong style={{ color }} testID="readiness">
        {r.sentence}
      </Strong>
      <Figures deal={deal} />
      <Row gap={8} wrap>
        <DropMenu
          anchor={(open) => (
            <Button
              icon="chevron-down"
              onPress={open}
              label={TEXT.theDealIsChange(STATUS_WORDS[deal.status])}
              testID="deal-status"
            >
              {upperFirst(STATUS_WORDS[deal.status])}
            </Button>
          )}
        >
          {STATUSES_OF[deal.kind].map((s) => (
            <MenuItem
              key={s}
              title={upperFirst(STATUS_WORDS[s])}
              testID={`status-${s}`}
              onPress={() => set.mutate({ status: s })}
            />
          ))}
        </DropMenu>
        <Small>
          {[
            deal.statusOn ? TEXT.since(shortDay(deal.statusOn, deal.today)) : '',
            deal.archivedAt ? TEXT.inTheArchiveWithin : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </Small>
        {deal.tags.map((t) => (
          <View key={t} style={{ backgroundColor: p.bench, borderRadius: 8, paddingHorizontal: 8, paddingVertical: 2 }}>
            <Small>{t}</Small>
          </View>
        ))}
      </Row>
      <ActError of={set} />
      {more ? <More deal={deal} change={(body) => set.mutate(body)} /> : null}
    </Stack>
  );
}

function Figures({ deal }: { deal: DealView }) {
  const { signatures: s, initials: i } = deal;
  if (!s.of && !i.of) return null;
  const part = (t: { done: number; of: number }, word: string) => (t.of ? TEXT.doneOf(t.done, t.of, word) : '');
  return <Small>{[part(s, 'signatures'), part(i, 'initials')].filter(Boolean).join(', ')}</Small>;
}

/** What is rarely changed: for whom, who works on it, tags, the archive, deleting it. */
function More({ deal, change }: { deal: DealView; change: (body: DealPatch) => void }) {
  const p = usePalette();
  const firm = useFirm();
  const [tags, setTags] = useState(deal.tags.join(', '));
  const [asking, setAsking] = useState(false);
  return (
    <Stack
      testID="deal-more-panel"
      gap={12}
      style={{ backgroundColor: p.sheet, borderWidth: 1, borderColor: p.rule, borderRadius: 16, padding: 16 }}
    >
      <Small>{TEXT.forWhomTheFirmActs}</Small>
      <Choice
        label={TEXT.forWhomTheFirmActs}
        value={deal.forWhom}
        wrap
        options={FOR_WHOM_OF[deal.kind].map((value) => ({
          value,
          label: value === 'both' ? TEXT.bothSides : TEXT.the(value),
        }))}
        onChange={(forWhom) => change({ forWhom })}
      />
      {firm.data ? <Members deal={deal} firm={firm.data} change={change} /> : null}
      <Input label={TEXT.tagsWithCommasBetween} value={tags} maxLength={400} onChangeText={setTags} testID="tags" />
      <LateDay
        label={TEXT.retainAtLeastUntil}
        value={deal.retainUntil ?? ''}
        onSave={(day) => change({ retainUntil: day || null })}
        testID="keep-until"
      />
      <Actions>
        <Button
          disabled={tags === deal.tags.join(', ')}
          onPress={() => change({ tags: tagsIn(tags) })}
          testID="save-tags"
        >
          {TEXT.saveTags}
        </Button>
        <Button onPress={() => change({ archived: !deal.archivedAt })} testID="archive">
          {deal.archivedAt ? TEXT.restoreFromArchive : TEXT.moveToArchive}
        </Button>
        {deal.disposable && !asking ? (
          <Button kind="quiet" icon="trash" onPress={() => setAsking(true)} testID="drop-deal">
            {TEXT.deleteDeal}
          </Button>
        ) : null}
      </Actions>
      <CalendarFeed dealId={deal.id} />
      {asking ? <ThrowAway dealId={deal.id} onCancel={() => setAsking(false)} /> : null}
    </Stack>
  );
}

function ThrowAway({ dealId, onCancel }: { dealId: string; onCancel: () => void }) {
  const { drop } = useDealChanges(dealId);
  return (
    <Stack gap={8}>
      <Body>{TEXT.thisDeletesItsPapersPeople}</Body>
      <ActError of={drop} />
      <Row gap={8} align="stretch">
        <Button
          kind="stop"
          busy={drop.isPending}
          onPress={() => drop.mutate(undefined, { onSuccess: () => router.replace('/deals') })}
          testID="drop-deal-now"
        >
          {TEXT.deleteWord}
        </Button>
        <Button onPress={onCancel}>{TEXT.keepIt}</Button>
      </Row>
    </Stack>
  );
}

const tagsIn = (text: string) => [
  ...new Set(
    text
      .split(',')
      .map((t) => t.trim().slice(0, 40))
      .filter(Boolean),
  ),
];

function Members({ deal, firm, change }: { deal: DealView; firm: FirmView; change: (body: DealPatch) => void }) {
  if (firm.members.length < 2) return null;
  const on = (id: string) => deal.memberIds.includes(id);
  return (
    <View>
      <Small>{deal.memberIds.length ? TEXT.assignedTo : TEXT.assignedToEveryone}</Small>
      {firm.members.map((m) => (
        <Switch
          key={m.id}
          label={m.name}
          on={on(m.id)}
          onChange={(yes) =>
            change({ memberIds: yes ? [...deal.memberIds, m.id] : deal.memberIds.filter((x) => x !== m.id) })
          }
        />
      ))}
    </View>
  );
}
