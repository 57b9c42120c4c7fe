/** When the packet lapses and whom it reminds, with every date that follows, before it is sent. */
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
import { useDesk, useDeskActs } from './use-desk';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

const WHAT: Record<PlannedDate['what'], (d: PlannedDate) => string> = {
  nudge: (d) => `nudge ${d.n}`,
  warning: () => TEXT.warningItIsAboutTo,
  last_day: () => TEXT.lastDayForSigningUntil,
};

export function ScheduleCard() {
  const { edit } = useDeskActs();
  const { draft, packet } = useDesk((s) => ({ draft: s.draft, packet: s.packet }));
  const { schedule } = draft;
  // The server's clock, which a demo may have set forward.
  const now = useSession().data?.now ?? new Date().toISOString();
  const today = dayOf(now, packet.timeZone);
  const set = (change: Partial<Schedule>) =>
    edit([{ op: 'set', field: 'schedule', value: { ...schedule, ...change } }]);
  const dates = plannedDates(schedule, now, packet.timeZone, packet.holidays);
  const { nudge } = schedule;
  return (
    <Card testID="schedule">
      <Heading>{TEXT.time}</Heading>
      <Row gap={8} align="end">
        <Stack grow>
          <DayField
            label={TEXT.lastDayForSigning}
            value={schedule.lastDay ?? ''}
            min={today}
            onChange={(day) => set({ lastDay: day || null, ...(day && !schedule.warnDays ? { warnDays: 1 } : {}) })}
            testID="last-day"
          />
        </Stack>
        {schedule.lastDay ? <Button onPress={() => set({ lastDay: null })}>{TEXT.none}</Button> : null}
      </Row>
      {schedule.lastDay && schedule.lastDay < today ? <Small>{TEXT.thisDayHasPassedChoose}</Small> : null}
      {schedule.lastDay ? (
        <NumberField
          label={TEXT.warningDaysBeforeForNone}
          value={schedule.warnDays}
          min={0}
          max={60}
          onChange={(warnDays) => set({ warnDays })}
        />
      ) : null}
      <Switch
        label={TEXT.nudgeThePeopleItWaits}
        on={nudge !== null}
        onChange={(on) => set({ nudge: on ? USUAL_SCHEDULE.nudge : null })}
        testID="nudges"
      />
      {nudge ? <Nudges nudge={nudge} onChange={(next) => set({ nudge: next })} /> : null}
      <Dates dates={dates} nudged={nudge !== null} />
      <Switch
        label={TEXT.clientsMayHandOver}
        on={draft.handOver}
        onChange={(handOver) => edit([{ op: 'set', field: 'handOver', value: handOver }])}
        testID="hand-over-allowed"
      />
      <Switch
        label={TEXT.peopleAtLaterGatesMay}
        on={draft.readAlong ?? false}
        onChange={(readAlong) => edit([{ op: 'set', field: 'readAlong', value: readAlong }])}
        testID="read-along-allowed"
      />
    </Card>
  );
}

/** When people who do nothing are nudged. */
function Nudges({ nudge, onChange }: { nudge: NudgePlan; onChange: (nudge: NudgePlan) => void }) {
  const set = (change: Partial<NudgePlan>) => onChange({ ...nudge, ...change });
  return (
    <>
      <Row gap={8} align="stretch">
        {(
          [
            ['first', TEXT.afterDays, 1, 90],
            ['every', TEXT.thenEvery, 1, 90],
            ['most', TEXT.atMost, 0, 20],
          ] as const
        ).map(([key, label, min, max]) => (
          <Stack key={key} grow>
            <NumberField
              label={label}
              value={nudge[key]}
              min={min}
              max={max}
              onChange={(n) => set({ [key]: n })}
              testID={`nudge-${key}`}
            />
          </Stack>
        ))}
      </Row>
      <Switch
        label={TEXT.notOnWeekendsOrHolidays}
        on={nudge.businessDays}
        onChange={(businessDays) => set({ businessDays })}
      />
      <NudgeWords nudge={nudge} onChange={onChange} />
    </>
  );
}

/** The dates that follow if nobody acts. */
function Dates({ dates, nudged }: { dates: PlannedDate[]; nudged: boolean }) {
  return dates.length ? (
    <Stack testID="planned-dates" gap={4}>
      <Small>{TEXT.ifItGoesOutToday(nudged ? TEXT.someoneDoesNothing : TEXT.noOneDoesAnything)}</Small>
      {dates.map((d) => (
        <Body key={`${d.what}${d.day}`}>{`${dayWords(d.day)}: ${WHAT[d.what](d)}`}</Body>
      ))}
    </Stack>
  ) : (
    <Small>{TEXT.noLastDayAndNo}</Small>
  );
}
