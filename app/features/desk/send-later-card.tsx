/** Sending at a day and hour in the deal's time zone: set, shown while it waits, and cancelled. */
import { useState } from 'react';
import type { PacketView } from '@gatepath/contract';
import { dayOf, sendingDay, shortDay, type Schedule } from '@gatepath/core/calendar';
import { usePacketActions, useSession } from '../../api/hooks';
import { DayField } from '../../ui/day-field';
import { HourMenu, hourWords } from '../../ui/hour-menu';
import { ActError, Button, Card, Note } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Heading, Small } from '../../ui/text';
import { InNameOf } from './in-name-of';
import { useDesk } from './use-desk';
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

export function SendLaterCard() {
  const { packet, sending } = useDesk((s) => ({ packet: s.packet, sending: s.draft.schedule.sending }));
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
        <SetTime onDone={() => setOpen(false)} />
      ) : (
        <>
          <Small>{whenSent(sending, packet, now)}</Small>
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
function whenSent(sending: Schedule['sending'], packet: PacketView, now: string): string {
  if (!sending) return TEXT.whenYouSendItOr;
  const { day, hour } = sendingDay(sending, now, packet.timeZone, packet.holidays);
  return TEXT.itsKitSendsItOn(shortDay(day, dayOf(now, packet.timeZone)), hourWords(hour));
}

function SetTime({ onDone }: { onDone: () => void }) {
  const { packet, sending, warns, saved, version } = useDesk((s) => ({
    packet: s.packet,
    sending: s.draft.schedule.sending,
    warns: s.view.findings.some((f) => f.severity === 'warns'),
    saved: s.saving.state === 'saved',
    version: s.base.version,
  }));
  const { sendLater } = usePacketActions(packet.id);
  const now = useSession().data?.now ?? new Date().toISOString();
  const planned = sending ? sendingDay(sending, now, packet.timeZone, packet.holidays) : null;
  const [day, setDay] = useState(planned?.day ?? '');
  const [hour, setHour] = useState(planned?.hour ?? 9);
  const [forId, setFor] = useState('');
  const [despite, setDespite] = useState(false);
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
          disabled={!day || !saved}
          busy={sendLater.isPending}
          onPress={() =>
            sendLater.mutate(
              { version, day, hour, despiteWarnings: despite, ...(forId ? { forId } : {}) },
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
