/** What waits for the member: verb first, the deal below, the act within reach; what is done leaves, with undo. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { TodayView } from '@gatepath/contract';
import { usePalette, useWide } from '../../ui/hooks';
import { MoreLink } from '../../ui/more-link';
import { Button, Card, Trouble } from '../../ui/pieces';
import { Heading, Small, Strong } from '../../ui/text';
import { actLabel, DoneRow } from '../deals/act-row';
import { dueWords } from '../deals/next-card';
import { ACT_WORDS, isDone, type Acts } from '../deals/use-acts';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** As many as fit beside the week without scrolling. */
const AT_FIRST = { wide: 5, phone: 6 };

type Item = TodayView['waiting']['items'][number];

export function Waiting({ today, acts }: { today: TodayView; acts: Acts }) {
  const p = usePalette();
  const wide = useWide();
  const [all, setAll] = useState(false);
  const left = today.waiting.items.filter((a) => !isDone(acts.shown, a));
  const first = AT_FIRST[wide ? 'wide' : 'phone'];
  const listed = all ? left : left.slice(0, first);
  // Counts only what is urgent.
  const pressing = today.waiting.pressing - (today.waiting.items.length - left.length) - listed.length;
  return (
    <Stack gap={8} testID="waiting">
      <Heading>{TEXT.forYouToDo}</Heading>
      <Card style={{ gap: 0, paddingVertical: 4 }}>
        {acts.shown.map((d) => (
          <DoneRow key={d.id} done={d} onTakeBack={() => acts.takeBack(d.id)} />
        ))}
        {listed.map((a, i) => (
          <View
            key={`${a.dealId} ${a.id}`}
            style={{ borderTopWidth: i || acts.shown.length ? 1 : 0, borderColor: p.rule }}
          >
            <WaitingRow item={a} today={today.today} busy={acts.busy} onPress={() => acts.act(a)} />
          </View>
        ))}
        {left.length || acts.shown.length ? null : <Small style={{ paddingVertical: 12 }}>{TEXT.nothingUrgent}</Small>}
        {acts.error ? <Trouble error={acts.error} /> : null}
        {left.length > listed.length ? (
          <MoreLink onPress={() => setAll(true)}>
            {pressing > 0 ? TEXT.moreOf(pressing) : TEXT.moreWhenThereIsTime}
          </MoreLink>
        ) : today.waiting.more ? (
          <Small style={{ paddingVertical: 8 }}>{TEXT.moreAreShownInTheir(today.waiting.more)}</Small>
        ) : null}
      </Card>
    </Stack>
  );
}

function WaitingRow({ item, today, busy, onPress }: { item: Item; today: string; busy: boolean; onPress: () => void }) {
  const wide = useWide();
  const late = item.due !== null && item.due < today;
  return (
    <Row testID={`waiting-${item.act.do}`} gap={8} style={{ minHeight: wide ? 58 : 66, paddingVertical: 4 }}>
      <Pressable
        role="link"
        aria-label={TEXT.openTheDeal(item.title, item.address)}
        onPress={() => router.push(`/deals/${item.dealId}`)}
        style={{ flex: 1, minHeight: 44, justifyContent: 'center' }}
      >
        <Strong numberOfLines={2}>{item.title}</Strong>
        <Small numberOfLines={1}>
          {item.address}
          {item.due ? (
            <Small tone={late ? 'stop' : 'warn'}>{` · ${dueWords(item.due, today)}`}</Small>
          ) : (
            ` · ${item.detail}`
          )}
        </Small>
      </Pressable>
      <Button
        onPress={onPress}
        busy={busy && item.act.do === 'prepare'}
        label={actLabel(ACT_WORDS[item.act.do], `${item.title}, ${item.address}`)}
      >
        {ACT_WORDS[item.act.do]}
      </Button>
    </Row>
  );
}
