/** The deal's key dates as posts on a line: passed ones filled, the next one lit, what is needed below. */
import { useEffect, useState } from 'react';
import { Pressable, View } from 'react-native';
import type { DealChanged, DealView } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { DATE_WORDS, DATES_OF, type KeyDate } from '@gatepath/core/deal';
import { count } from '@gatepath/core/text';
import { useDealChanges } from '../../api/deal-hooks';
import { DayField } from '../../ui/day-field';
import { usePalette, useWide } from '../../ui/hooks';
import { ActError, Button, Card, Note } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

type PostState = 'passed' | 'next' | 'ahead' | 'unknown';

/** Returns the posts of a deal in the order of its days; unknown days are where they usually come. */
export function postsOf(deal: Pick<DealView, 'kind' | 'dates' | 'today' | 'requirements'>) {
  const names = DATES_OF[deal.kind];
  const known = names
    .filter((d) => deal.dates[d])
    .sort((a, b) => (deal.dates[a] ?? '').localeCompare(deal.dates[b] ?? ''));
  let at = 0;
  const order = names.map((d) => (deal.dates[d] ? (known[at++] ?? d) : d));
  const next = order.find((d) => (deal.dates[d] ?? '') >= deal.today && deal.dates[d]);
  const due = deal.requirements.filter((r) => r.state === 'open' && r.due);
  let before = '';
  return order.map((date) => {
    const day = deal.dates[date] ?? null;
    const state: PostState = !day ? 'unknown' : date === next ? 'next' : day < deal.today ? 'passed' : 'ahead';
    // What is due after the post before and up to this one hangs from it.
    const hangs = day ? due.filter((r) => r.due && r.due.day > before && r.due.day <= day).length : 0;
    if (day) before = day;
    return { date, day, state, hangs };
  });
}

export function MilePosts({ deal, open }: { deal: DealView; open?: KeyDate | null }) {
  const wide = useWide();
  const [editing, setEditing] = useState<KeyDate | null>(open ?? null);
  const [told, setTold] = useState<DealChanged | null>(null);
  useEffect(() => {
    if (open) setEditing(open);
  }, [open]);
  const posts = postsOf(deal);
  const perRow = wide || posts.length <= 4 ? posts.length : Math.ceil(posts.length / 2);
  return (
    <Card testID="mile-posts">
      <Row role="list" aria-label={TEXT.keyDates} align="stretch" wrap style={{ rowGap: 12 }}>
        {posts.map((post, i) => (
          <View key={post.date} role="listitem" style={{ width: `${100 / perRow}%` }}>
            <Post
              {...post}
              today={deal.today}
              first={i % perRow === 0}
              last={i === posts.length - 1 || i % perRow === perRow - 1}
              pressed={editing === post.date}
              onPress={() => {
                setTold(null);
                setEditing(editing === post.date ? null : post.date);
              }}
            />
          </View>
        ))}
      </Row>
      {editing ? (
        <DateForm
          key={editing}
          deal={deal}
          date={editing}
          onDone={(changed) => {
            setTold(changed);
            setEditing(null);
          }}
        />
      ) : null}
      {told ? <MovedNote changed={told} today={deal.today} /> : null}
      {posts.every((x) => !x.day) && !editing ? <Small tone="plain">{TEXT.noDatesYetTapOne}</Small> : null}
    </Card>
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function Post({
  date,
  day,
  state,
  hangs,
  today,
  first,
  last,
  pressed,
  onPress,
}: ReturnType<typeof postsOf>[number] & {
  today: string;
  first: boolean;
  last: boolean;
  pressed: boolean;
  onPress: () => void;
}) {
  const p = usePalette();
  const color = state === 'passed' ? p.moss : state === 'next' ? p.brick : p.slate;
  const line = { flex: 1, height: 3, backgroundColor: state === 'passed' ? p.moss : p.rule };
  const says = { passed: 'passed', next: 'next', ahead: 'ahead', unknown: TEXT.notSet }[state];
  const words = { fontSize: 13.5, textAlign: 'center' as const };
  return (
    <Pressable
      role="button"
      testID={`post-${date}`}
      aria-expanded={pressed}
      aria-label={TEXT.change(
        DATE_WORDS[date],
        day ? shortDay(day, today) : TEXT.notSet,
        says,
        hangs ? TEXT.dueBefore(count(hangs, 'paper')) : '',
      )}
      onPress={onPress}
      style={{
        alignItems: 'stretch',
        gap: 4,
        minHeight: 72,
        borderRadius: 10,
        backgroundColor: pressed ? p.brickWash : undefined,
      }}
    >
      <Small numberOfLines={1} style={{ ...words, color: state === 'next' ? p.brick : p.ink, fontFamily: FONT.bold }}>
        {DATE_WORDS[date]}
      </Small>
      <Row>
        <View style={[line, first ? { opacity: 0 } : null]} />
        <View
          style={{
            width: 15,
            height: 22,
            borderTopLeftRadius: 7,
            borderTopRightRadius: 7,
            borderBottomLeftRadius: 2,
            borderBottomRightRadius: 2,
            borderWidth: 2,
            borderStyle: state === 'unknown' ? 'dashed' : 'solid',
            borderColor: color,
            backgroundColor: state === 'passed' || state === 'next' ? color : p.sheet,
          }}
        />
        <View style={[line, last ? { opacity: 0 } : null]} />
      </Row>
      <Small numberOfLines={1} style={words}>
        {day ? shortDay(day, today).replace(/^\w+ /, '') : 'set'}
      </Small>
      {hangs ? (
        <Small style={{ ...words, color: state === 'passed' ? p.wine : p.ochre }}>{TEXT.dueOf(hangs)}</Small>
      ) : null}
    </Pressable>
  );
}

function DateForm({
  deal,
  date,
  onDone,
}: {
  deal: DealView;
  date: KeyDate;
  onDone: (changed: DealChanged | null) => void;
}) {
  const { set } = useDealChanges(deal.id);
  const was = deal.dates[date] ?? '';
  const [day, setDay] = useState(was);
  const save = (value: string | null) => set.mutate({ dates: { [date]: value } }, { onSuccess: onDone });
  return (
    <Stack gap={8}>
      <DayField label={DATE_WORDS[date]} value={day} onChange={setDay} testID="key-date" />
      <ActError of={set} />
      <Actions>
        <Button
          kind="main"
          disabled={!day || day === was}
          busy={set.isPending}
          onPress={() => save(day)}
          testID="save-date"
        >
          {TEXT.setTheDay}
        </Button>
        {was ? <Button onPress={() => save(null)}>{TEXT.notKnown}</Button> : null}
        <Button kind="quiet" onPress={() => onDone(null)}>
          {TEXT.cancel}
        </Button>
      </Actions>
    </Stack>
  );
}

/** What a change did to the needs of the deal; nothing if it did nothing. */
export function MovedNote({ changed, today }: { changed: Omit<DealChanged, 'deal'>; today: string }) {
  const day = (d: string | null) => (d ? shortDay(d, today) : TEXT.noDay);
  const lines = [
    ...changed.added.map((t) => TEXT.isNeededNow(t)),
    ...changed.gone.map((t) => TEXT.isNotNeededAnyMore(t)),
    ...changed.moved.map((m) => TEXT.fromTo(m.title, day(m.from), day(m.to))),
  ];
  if (!lines.length) return null;
  return (
    <Note tone="plain" title={TEXT.whatThisChanged} testID="moved">
      <View>
        {lines.slice(0, 8).map((l) => (
          <Small key={l}>{l}</Small>
        ))}
        {lines.length > 8 ? <Small>{TEXT.andMoreOf(lines.length - 8)}</Small> : null}
      </View>
    </Note>
  );
}
