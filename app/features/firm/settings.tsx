/** Settings: what a member is notified of, the firm's holidays, and the demo's clock. */
import { useState } from 'react';
import { NOTICES, type FirmView, type Notice } from '@gatepath/contract';
import { count } from '@gatepath/core/text';
import { useSession, useSettings } from '../../api/hooks';
import { DayField } from '../../ui/day-field';
import { ActError, Button, Card, IconButton } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small } from '../../ui/text';
import { dayWords } from '../../ui/dates';
import { when } from '../../ui/dates';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

const NOTICE_WORDS: Record<Notice, string> = {
  asked: TEXT.someoneWasAsked,
  opened: TEXT.someoneOpenedAPacket,
  done: TEXT.someoneIsDoneAndWho,
  declined: TEXT.someoneDeclined,
  question: TEXT.someoneHasAQuestion,
  lapsing: TEXT.aPacketIsAboutTo,
  executed: TEXT.aPacketIsExecuted,
  trouble: TEXT.aMessageCameBackA,
};

export function NoticesCard() {
  const session = useSession();
  const { notices } = useSettings();
  const me = session.data?.member;
  if (!me) return null;
  const set = (change: { notices?: Notice[]; digest?: boolean }) =>
    notices.mutate({ notices: me.notices, digest: me.digest, ...change });
  return (
    <Card testID="notices">
      <Heading>{TEXT.emailMeWhen}</Heading>
      {NOTICES.map((n) => (
        <Switch
          key={n}
          label={NOTICE_WORDS[n]}
          on={me.notices.includes(n)}
          onChange={(on) => set({ notices: on ? [...me.notices, n] : me.notices.filter((x) => x !== n) })}
          testID={`notice-${n}`}
        />
      ))}
      <Switch
        label={TEXT.eachMorningWhatNeedsYou}
        on={me.digest}
        onChange={(digest) => set({ digest })}
        testID="digest"
      />
      <ActError of={notices} />
    </Card>
  );
}

/** Whether papers that were sent before get their marks at once. */
export function RememberedCard({ firm }: { firm: FirmView }) {
  const { placeRemembered } = useSettings();
  return (
    <Card testID="remembered-setting">
      <Heading>{TEXT.papersSentBefore}</Heading>
      <Body>{TEXT.whatWasOnAPaper}</Body>
      <Switch
        label={TEXT.placeItAtOnce}
        on={firm.placeRemembered}
        onChange={(on) => placeRemembered.mutate(on)}
        testID="place-remembered-at-once"
      />
      <ActError of={placeRemembered} />
    </Card>
  );
}

export function HolidaysCard({ firm }: { firm: FirmView }) {
  const { holidays } = useSettings();
  const [day, setDay] = useState('');
  return (
    <Card testID="holidays">
      <Heading>{TEXT.holidays}</Heading>
      <Small>{TEXT.noOneIsNudged}</Small>
      {firm.holidays.map((d) => (
        <Row key={d}>
          <Body grow>{`${dayWords(d)}, ${d.slice(0, 4)}`}</Body>
          <IconButton
            name="close"
            label={TEXT.remove(d)}
            onPress={() => holidays.mutate(firm.holidays.filter((x) => x !== d))}
          />
        </Row>
      ))}
      <Row gap={8} align="end">
        <Stack grow>
          <DayField label={TEXT.anotherHoliday} value={day} onChange={setDay} testID="holiday" />
        </Stack>
        <Button
          disabled={!day}
          busy={holidays.isPending}
          onPress={() => holidays.mutate([...firm.holidays, day], { onSuccess: () => setDay('') })}
          testID="add-holiday"
        >
          {TEXT.add}
        </Button>
      </Row>
      <ActError of={holidays} />
    </Card>
  );
}

/** The demo's clock, to see reminders and lapses happen. */
export function ClockCard() {
  const session = useSession();
  const { forward } = useSettings();
  return (
    <Card testID="clock">
      <Heading>{TEXT.clock}</Heading>
      <Body>{session.data ? when(session.data.now, session.data.firm?.timeZone) : ''}</Body>
      <Small>{TEXT.setItForwardToSee}</Small>
      <ActError of={forward} />
      <Actions>
        {(
          [
            [24, TEXT.forwardOneDay],
            [72, TEXT.forwardThreeDays],
            [168, TEXT.forwardOneWeek],
          ] as const
        ).map(([hours, label]) => (
          <Button
            key={hours}
            busy={forward.isPending && forward.variables === hours}
            onPress={() => forward.mutate(hours)}
            testID={`forward-${hours}`}
          >
            {label}
          </Button>
        ))}
      </Actions>
    </Card>
  );
}

/** Failed background jobs; nothing if there are none. */
export function FailuresCard({ firm }: { firm: FirmView }) {
  const { again } = useSettings();
  if (!firm.failures.length) return null;
  return (
    <Card testID="failures">
      <Heading>{TEXT.failedWork}</Heading>
      <Small>{TEXT.theseWereTriedSeveralTimes}</Small>
      {firm.failures.map((f) => (
        <Stack key={`${f.queue} ${f.thing}`} gap={4}>
          <Body>{f.sentence}</Body>
          <Small>{TEXT.triedLastTheServerSays(count(f.tries, 'time'), when(f.at, firm.timeZone), f.detail)}</Small>
          <Button
            kind="quiet"
            onPress={() => again.mutate({ queue: f.queue, thing: f.thing })}
            busy={again.isPending && again.variables.thing === f.thing}
            fit
            testID="work-again"
          >
            {TEXT.tryAgain}
          </Button>
        </Stack>
      ))}
      <ActError of={again} />
    </Card>
  );
}
