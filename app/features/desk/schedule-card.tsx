/** When the packet ends by itself and whom it reminds, with every date that follows shown before sending. */
import { View } from 'react-native';
import {
  dayOf,
  plannedDates,
  USUAL_SCHEDULE,
  type NudgePlan,
  type PlannedDate,
  type Schedule,
} from '@gatepath/core/calendar';
import { useSession } from '../../api/hooks';
import { DayField } from '../../ui/day-field';
import { NumberField } from '../../ui/number-field';
import { Button, Card } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small } from '../../ui/text';
import { dayWords } from '../../ui/dates';
import { NudgeWords } from './nudge-words';
import type { Desk } from './use-desk';

const WHAT: Record<PlannedDate['what'], (d: PlannedDate) => string> = {
  nudge: (d) => `reminder ${d.n}`,
  warning: () => 'warning: it is about to lapse',
  last_day: () => 'last day for signing, until its end',
};

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function ScheduleCard({ desk }: { desk: Desk }) {
  const { draft, edit, packet } = desk;
  const { schedule } = draft;
  // The server's clock, which a demo may have set forward.
  const now = useSession().data?.now ?? new Date().toISOString();
  const today = dayOf(now, packet.timeZone);
  const set = (change: Partial<Schedule>) =>
    edit([{ op: 'set', field: 'schedule', value: { ...schedule, ...change } }]);
  const setNudge = (change: Partial<NudgePlan>) =>
    set({ nudge: { ...(schedule.nudge ?? USUAL_SCHEDULE.nudge!), ...change } });
  const dates = plannedDates(schedule, now, packet.timeZone, packet.holidays);
  const { nudge } = schedule;
  return (
    <Card style={{ gap: 10 }} testID="schedule">
      <Heading>Time</Heading>
      <View style={{ flexDirection: 'row', gap: 10, alignItems: 'flex-end' }}>
        <View style={{ flex: 1 }}>
          <DayField
            label="Last day for signing"
            value={schedule.lastDay ?? ''}
            min={today}
            onChange={(day) => set({ lastDay: day || null, ...(day && !schedule.warnDays ? { warnDays: 1 } : {}) })}
            testID="last-day"
          />
        </View>
        {schedule.lastDay ? <Button onPress={() => set({ lastDay: null })}>None</Button> : null}
      </View>
      {schedule.lastDay && schedule.lastDay < today ? <Small>This day has passed. Choose a later day.</Small> : null}
      {schedule.lastDay ? (
        <NumberField
          label="Warning, days before (0 for none)"
          value={schedule.warnDays}
          min={0}
          max={60}
          onChange={(warnDays) => set({ warnDays })}
        />
      ) : null}
      <Switch
        label="Nudge the people it waits for"
        on={nudge !== null}
        onChange={(on) => set({ nudge: on ? USUAL_SCHEDULE.nudge : null })}
        testID="nudges"
      />
      {nudge ? (
        <>
          <View style={{ flexDirection: 'row', gap: 8 }}>
            {(
              [
                ['first', 'After days', 1, 90],
                ['every', 'Then every', 1, 90],
                ['most', 'At most', 0, 20],
              ] as const
            ).map(([key, label, min, max]) => (
              <View key={key} style={{ flex: 1 }}>
                <NumberField
                  label={label}
                  value={nudge[key]}
                  min={min}
                  max={max}
                  onChange={(n) => setNudge({ [key]: n })}
                  testID={`nudge-${key}`}
                />
              </View>
            ))}
          </View>
          <Switch
            label="Not on weekends or holidays"
            on={nudge.businessDays}
            onChange={(businessDays) => setNudge({ businessDays })}
          />
          <NudgeWords nudge={nudge} onChange={(now) => set({ nudge: now })} />
        </>
      ) : null}
      {dates.length ? (
        <View testID="planned-dates" style={{ gap: 2 }}>
          <Small>{`If it goes out today and ${nudge ? 'someone does nothing' : 'no one does anything'}:`}</Small>
          {dates.map((d) => (
            <Body key={`${d.what}${d.day}`}>{`${dayWords(d.day)}: ${WHAT[d.what](d)}`}</Body>
          ))}
        </View>
      ) : (
        <Small>No last day and no nudges: it waits as long as it takes.</Small>
      )}
      <Switch
        label="Clients may hand over to someone else"
        on={draft.handOver}
        onChange={(handOver) => edit([{ op: 'set', field: 'handOver', value: handOver }])}
        testID="hand-over-allowed"
      />
      <Switch
        label="People at later gates may read along"
        on={draft.readAlong ?? false}
        onChange={(readAlong) => edit([{ op: 'set', field: 'readAlong', value: readAlong }])}
        testID="read-along-allowed"
      />
    </Card>
  );
}
