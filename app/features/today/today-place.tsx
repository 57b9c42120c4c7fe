/** The first screen after signing in: what waits, what is due this week, what is held up, what was executed. */
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
import { ContractZone } from '../incoming/contract-drop';
import { StandingStill } from './standing-still';
import { Through } from './through';
import { Waiting } from './waiting';
import { Week } from './week';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function TodayPlace() {
  const today = useToday();
  const wide = useWide();
  if (!isReady(today)) return <NotReady query={today} what={TEXT.yourDay} />;
  const t = today.data;
  return (
    <ContractZone>
      <Page max={wide ? 1240 : 760}>
        <View>
          <Title testID="today-sentence">{t.sentence}</Title>
          <Small>
            {TEXT.onWay(longDay(t.today), count(t.deals, TEXT.openDeal), count(t.packets, 'packet'), t.packets)}
          </Small>
        </View>
        {wide ? null : <CommandButton />}
        {isEmpty(t) ? <Empty today={t} /> : <Parts today={t} wide={wide} />}
      </Page>
    </ContractZone>
  );
}

/** The four parts of a day: beside each other on a wide screen, otherwise one after another. */
function Parts({ today, wide }: { today: TodayView; wide: boolean }) {
  const acts = useActs();
  const waiting = (
    <Part name={TEXT.forYouToDo}>
      <Waiting today={today} acts={acts} />
    </Part>
  );
  const week = (
    <Part name={TEXT.theWeek}>
      <Week today={today} />
    </Part>
  );
  const still = (
    <Part name={TEXT.stalled}>
      <StandingStill today={today} acts={acts} />
    </Part>
  );
  const through = (
    <Part name={TEXT.completed}>
      <Through today={today} />
    </Part>
  );
  if (!wide)
    return (
      <>
        {waiting}
        {week}
        {still}
        {through}
      </>
    );
  return (
    <Row gap={16} align="start">
      <Stack gap={16} style={{ width: 430 }}>
        {waiting}
        {through}
      </Stack>
      <Stack gap={16} grow style={{ minWidth: 0 }}>
        {week}
        {still}
      </Stack>
    </Row>
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

/** Nothing to do: a gate that is open, and the way on. */
function Empty({ today }: { today: TodayView }) {
  const p = usePalette();
  return (
    <Card gap={12} style={{ alignItems: 'center', paddingVertical: 36 }} testID="nothing-waits">
      <View style={{ width: 46, height: 5, borderRadius: 3, backgroundColor: p.moss }} />
      <Heading>{today.deals ? TEXT.everythingIsOnItsWay : TEXT.startWithADeal}</Heading>
      <Body center style={{ maxWidth: 420 }}>
        {today.deals ? TEXT.noPaperIsDueThis : TEXT.openADealWithIts}
      </Body>
      <Button
        kind={today.deals ? 'plain' : 'main'}
        onPress={() => router.push(today.deals ? '/deals' : '/deals/new')}
        testID={today.deals ? 'see-deals' : 'new-deal'}
      >
        {today.deals ? TEXT.seeTheDeals : TEXT.newDeal}
      </Button>
    </Card>
  );
}
