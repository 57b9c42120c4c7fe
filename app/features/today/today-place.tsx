/** The first screen after signing in: what waits, what is due this week, what stands still, what came through. */
import { router } from 'expo-router';
import { View } from 'react-native';
import type { TodayView } from '@gatepath/contract';
import { count } from '@gatepath/core/text';
import { useToday } from '../../api/deal-hooks';
import { Part } from '../../ui/boundary';
import { usePalette, useWide } from '../../ui/hooks';
import { isReady, NotReady } from '../../ui/not-ready';
import { Button, Card, Page } from '../../ui/pieces';
import { Body, Heading, Small, Title } from '../../ui/text';
import { useActs } from '../deals/use-acts';
import { CommandButton } from '../frame/command-line';
import { StandingStill } from './standing-still';
import { Through } from './through';
import { Waiting } from './waiting';
import { Week } from './week';

export function TodayPlace() {
  const today = useToday();
  const wide = useWide();
  const acts = useActs();
  if (!isReady(today)) return <NotReady query={today} what="your day" />;
  const t = today.data;
  const waiting = (
    <Part name="For you to do">
      <Waiting today={t} acts={acts} />
    </Part>
  );
  const week = (
    <Part name="The week">
      <Week today={t} />
    </Part>
  );
  const still = (
    <Part name="Stalled">
      <StandingStill today={t} acts={acts} />
    </Part>
  );
  const through = (
    <Part name="Through">
      <Through today={t} />
    </Part>
  );
  return (
    <Page max={wide ? 1240 : 760}>
      <View>
        <Title testID="today-sentence">{t.sentence}</Title>
        <Small>{`${longDay(t.today)}. ${count(t.deals, 'open deal')}, ${count(t.packets, 'packet')} on ${t.packets === 1 ? 'its' : 'their'} way.`}</Small>
      </View>
      {wide ? null : <CommandButton />}
      {isEmpty(t) ? (
        <Empty today={t} />
      ) : wide ? (
        <View style={{ flexDirection: 'row', gap: 20, alignItems: 'flex-start' }}>
          <View style={{ width: 430, gap: 16 }}>
            {waiting}
            {through}
          </View>
          <View style={{ flex: 1, gap: 16, minWidth: 0 }}>
            {week}
            {still}
          </View>
        </View>
      ) : (
        <>
          {waiting}
          {week}
          {still}
          {through}
        </>
      )}
    </Page>
  );
}

const isEmpty = (t: TodayView) =>
  !t.waiting.items.length && !t.week.items.length && !t.still.items.length && !t.through.items.length;

/** Returns a day written out: "Monday, November 30". */
export function longDay(day: string): string {
  const at = new Date(`${day}T12:00:00Z`);
  const part = (o: Intl.DateTimeFormatOptions) => at.toLocaleDateString('en-US', { ...o, timeZone: 'utc' });
  return `${part({ weekday: 'long' })}, ${part({ month: 'long' })} ${part({ day: 'numeric' })}`;
}

/** Nothing to do is a good state: a gate that stands open, and the way on. */
function Empty({ today }: { today: TodayView }) {
  const p = usePalette();
  return (
    <Card style={{ alignItems: 'center', gap: 12, paddingVertical: 36 }} testID="nothing-waits">
      <View style={{ width: 46, height: 5, borderRadius: 3, backgroundColor: p.moss }} />
      <Heading>{today.deals ? 'Everything is on its way' : 'Start with a deal'}</Heading>
      <Body style={{ textAlign: 'center', maxWidth: 420 }}>
        {today.deals
          ? 'No paper is due this week, no packet is stalled, and there are no questions.'
          : 'Open a deal with its address. What it needs and what is due will appear here.'}
      </Body>
      <Button
        kind={today.deals ? 'plain' : 'main'}
        onPress={() => router.push(today.deals ? '/deals' : '/deals/new')}
        testID={today.deals ? 'see-deals' : 'new-deal'}
      >
        {today.deals ? 'See the deals' : 'New deal'}
      </Button>
    </Card>
  );
}
