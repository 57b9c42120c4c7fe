/** Sending at a day and hour in the deal's time zone: set, shown while it waits, and cancelled. */
import { useState } from 'react';
import { dayOf, sendingDay, shortDay } from '@gatepath/core/calendar';
import { usePacketActions, useSession } from '../../api/hooks';
import { DayField } from '../../ui/day-field';
import { HourMenu, hourWords } from '../../ui/hour-menu';
import { ActError, Button, Card, Note } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Heading, Small } from '../../ui/text';
import { InNameOf } from './in-name-of';
import type { Desk } from './use-desk';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

const whenWords = (iso: string, timeZone: string) =>
  new Intl.DateTimeFormat('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: 'numeric',
    minute: '2-digit',
    timeZone,
  }).format(new Date(iso));

export function SendLaterCard({ desk }: { desk: Desk }) {
  const { packet } = desk;
  const { sendNotLater } = usePacketActions(packet.id);
  const [open, setOpen] = useState(false);
  const now = useSession().data?.now ?? new Date().toISOString();
  if (packet.status !== 'drafting') return null;
  const { later } = packet;
  return (
    <Card testID="send-later">
      <Heading>{TEXT.whenItGoes}</Heading>
      {later?.problem ? <Note tone="warn" title={TEXT.notSent(later.problem)} /> : null}
      {later?.at ? (
        <Note
          tone="good"
          title={TEXT.willBeSentSet(
            whenWords(later.at, packet.timeZone),
            later.by,
            later.inNameOf ? TEXT.inTheName(later.inNameOf) : '',
          )}
          testID="waits"
          action={
            <Button
              kind="quiet"
              busy={sendNotLater.isPending}
              onPress={() => sendNotLater.mutate()}
              fit
              testID="send-not-later"
            >
              {TEXT.cancelSending}
            </Button>
          }
        />
      ) : open ? (
        <SetTime desk={desk} onDone={() => setOpen(false)} />
      ) : (
        <>
          <Small>{whenSent(desk, now)}</Small>
          <Button onPress={() => setOpen(true)} fit testID="choose-time">
            {TEXT.chooseATime}
          </Button>
        </>
      )}
      <ActError of={sendNotLater} />
    </Card>
  );
}

/** Returns when it is sent, if no time is set. */
function whenSent({ draft, packet }: Desk, now: string): string {
  const { sending } = draft.schedule;
  if (!sending) return TEXT.whenYouSendItOr;
  const { day, hour } = sendingDay(sending, now, packet.timeZone, packet.holidays);
  return TEXT.itsKitSendsItOn(shortDay(day, dayOf(now, packet.timeZone)), hourWords(hour));
}

function SetTime({ desk, onDone }: { desk: Desk; onDone: () => void }) {
  const { packet } = desk;
  const { sendLater } = usePacketActions(packet.id);
  const now = useSession().data?.now ?? new Date().toISOString();
  const { sending } = desk.draft.schedule;
  const planned = sending ? sendingDay(sending, now, packet.timeZone, packet.holidays) : null;
  const [day, setDay] = useState(planned?.day ?? '');
  const [hour, setHour] = useState(planned?.hour ?? 9);
  const [forId, setFor] = useState('');
  const [despite, setDespite] = useState(false);
  const warns = desk.view.findings.some((f) => f.severity === 'warns');
  return (
    <>
      <Row gap={8} align="end" wrap>
        <DayField label={TEXT.day} value={day} min={dayOf(now, packet.timeZone)} onChange={setDay} testID="later-day" />
        <HourMenu value={hour} onChange={setHour} testID="later-hour" />
      </Row>
      <Small>{TEXT.inTheDealsTime(packet.timeZone)}</Small>
      <InNameOf value={forId} onChange={setFor} />
      {warns ? (
        <Switch label={TEXT.sendItDespiteTheWarnings} on={despite} onChange={setDespite} testID="later-despite" />
      ) : null}
      <ActError of={sendLater} />
      <Row gap={8} align="stretch">
        <Button
          kind="main"
          disabled={!day || desk.saving.state !== 'saved'}
          busy={sendLater.isPending}
          onPress={() =>
            sendLater.mutate(
              { version: desk.version, day, hour, despiteWarnings: despite, ...(forId ? { forId } : {}) },
              { onSuccess: onDone },
            )
          }
          testID="send-later-now"
        >
          {TEXT.scheduleSending}
        </Button>
        <Button onPress={onDone}>{TEXT.cancel}</Button>
      </Row>
    </>
  );
}
