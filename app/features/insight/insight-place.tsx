/** Reports: what was sent and executed, how long people take, whom packets wait for, how long it all takes. */
import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import type { InsightView } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { count, lowerFirst, SIDE_WORDS } from '@gatepath/core/text';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { usePalette, useWide } from '../../ui/hooks';
import { isReady, NotReady } from '../../ui/not-ready';
import { Page } from '../../ui/pieces';
import { Body, Title } from '../../ui/text';
import { ChartCard } from './chart-card';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

export function InsightPlace() {
  const wide = useWide();
  const insight = useQuery({ queryKey: keys.insight, queryFn: () => call('insight'), staleTime: 60_000 });
  if (!isReady(insight)) return <NotReady query={insight} what={TEXT.howItGoes} />;
  const v = insight.data;
  const column = { flex: 1, gap: 16, minWidth: 0 };
  return (
    <Page max={wide ? 1120 : 760}>
      <View>
        <Title>{TEXT.reports}</Title>
        <Body>{TEXT.howTheFirmsPacketsWent}</Body>
      </View>
      {wide ? (
        <Row gap={16} align="start">
          <View style={column}>
            <Weeks v={v} />
            <Through v={v} />
          </View>
          <View style={column}>
            <Waits v={v} />
            <HoldUps v={v} />
          </View>
        </Row>
      ) : (
        <>
          <Weeks v={v} />
          <Waits v={v} />
          <HoldUps v={v} />
          <Through v={v} />
        </>
      )}
    </Page>
  );
}

const days = (n: number) => count(n, 'day');
/** Returns the Monday below its bars: "Nov 2". */
const under = (day: string) => shortDay(day).replace(/^\w+ /, '');

function Weeks({ v }: { v: InsightView }) {
  const p = usePalette();
  const sum = (of: 'sent' | 'executed' | 'lapsed') => v.weeks.reduce((n, w) => n + w[of], 0);
  return (
    <ChartCard
      testID="chart-weeks"
      title={TEXT.packetsAWeek}
      sentence={TEXT.inWeeksWentOutAnd(
        v.weeks.length,
        count(sum('sent'), 'packet'),
        sum('executed'),
        sum('lapsed') || 'none',
      )}
      empty={TEXT.nothingHasBeenSent}
      list="weeks"
      nothing={v.weeks.every((w) => !w.sent && !w.executed && !w.lapsed)}
      rows={v.weeks.map((w, i) => ({
        x: i % 3 === 0 ? under(w.week) : '\u00a0'.repeat(i),
        sent: w.sent,
        executed: w.executed,
      }))}
      series={[
        { key: 'sent', label: 'sent', color: p.slate },
        { key: 'executed', label: 'executed', color: p.moss },
      ]}
      headings={[TEXT.weekOf, TEXT.sent, TEXT.executed, TEXT.lapsed]}
      table={v.weeks.map((w) => [under(w.week), w.sent, w.executed, w.lapsed])}
    />
  );
}

/** Returns how long the slowest side takes, in words; less than a day is said so. */
function waitWords({ side, median, slow }: InsightView['waits'][number]): string {
  const than = (n: number) => (n < 1 ? 'a day' : days(n));
  return TEXT.slowestHalfTakeNoLonger(lowerFirst(SIDE_WORDS[side]), than(median), than(slow));
}

function Waits({ v }: { v: InsightView }) {
  const p = usePalette();
  const slowest = [...v.waits].sort((a, b) => b.median - a.median)[0];
  return (
    <ChartCard
      testID="chart-waits"
      title={TEXT.timeAtAGate}
      lying
      sentence={slowest ? waitWords(slowest) : ''}
      empty={TEXT.noOneHasFinishedAnything}
      list="waits"
      nothing={!v.waits.length}
      rows={v.waits.map((w) => ({ x: SIDE_WORDS[w.side], median: w.median, slow: w.slow }))}
      series={[
        { key: 'median', label: TEXT.halfTakeNoLongerDays, color: p.brick },
        { key: 'slow', label: TEXT.nineInTenTakeNo, color: p.slate },
      ]}
      headings={[TEXT.side, TEXT.people, TEXT.half, TEXT.nineInTen]}
      table={v.waits.map((w) => [SIDE_WORDS[w.side], w.n, w.median, w.slow])}
    />
  );
}

function HoldUps({ v }: { v: InsightView }) {
  const p = usePalette();
  const all = v.holdUps.reduce((n, h) => n + h.n, 0);
  const longest = Math.max(0, ...v.holdUps.map((h) => h.longest));
  return (
    <ChartCard
      testID="chart-hold-ups"
      title={TEXT.heldUpNowBySide}
      lying
      sentence={TEXT.waitedForTheLongest(count(all, 'person', 'people'), all, days(longest))}
      empty={TEXT.noOneIsWaited}
      list="hold-ups"
      nothing={!v.holdUps.length}
      rows={v.holdUps.map((h) => ({ x: SIDE_WORDS[h.side], n: h.n }))}
      series={[{ key: 'n', label: TEXT.waitedForWithin, color: p.ochre }]}
      headings={[TEXT.side, TEXT.waitedFor, TEXT.longestDays]}
      table={v.holdUps.map((h) => [SIDE_WORDS[h.side], h.n, h.longest])}
    />
  );
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const monthName = (month: string) => MONTHS[Number(month.slice(5)) - 1] ?? month;

function Through({ v }: { v: InsightView }) {
  const p = usePalette();
  const last = [...v.through].reverse().find((m) => m.median !== null);
  return (
    <ChartCard
      testID="chart-through"
      title={TEXT.fromDraftToExecuted}
      sentence={last ? TEXT.inHalfOfThePackets(monthName(last.month), days(last.median ?? 0)) : ''}
      empty={TEXT.noPacketWasExecuted}
      list="through"
      nothing={!last}
      rows={v.through.map((m) => ({ x: monthName(m.month), median: m.median ?? 0 }))}
      series={[{ key: 'median', label: 'days', color: p.moss }]}
      headings={[TEXT.month, TEXT.executed, TEXT.halfDays]}
      table={v.through.map((m) => [`${monthName(m.month)} ${m.month.slice(0, 4)}`, m.n, m.median ?? '–'])}
    />
  );
}
