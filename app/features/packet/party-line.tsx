/** One party of a packet at a gate: its status, and what can be done for it. */
import { holdsGate, byLink, receives, ACT_FACTS, LETTER_WAYS } from '@gatepath/core/packet';
import { router } from 'expo-router';
import { useState } from 'react';
import type { PacketView, SentView } from '@gatepath/contract';
import { dayOf, shortDay } from '@gatepath/core/calendar';
import { count, firstName, sideLabel } from '@gatepath/core/text';
import { usePacketActions, useSession } from '../../api/hooks';
import { usePalette } from '../../ui/hooks';
import { DoOrLeave } from '../../ui/do-or-leave';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, Card, Choice, IconButton, Trouble } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import { Token } from '../../ui/token';
import { NameAndEmail } from '../people/name-and-email';
import { ChangeAct, RemoveParty, isUntouched } from './people-changes';
import { when } from '../../ui/dates';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

interface Props {
  id: string;
  packet: PacketView;
  sent: SentView;
}

type Party = SentView['plan']['parties'][number];
type PartyStatusView = SentView['parties'][number];

/** What is opened below the line. */
type Doing = 'fix' | 'act' | 'drop' | null;

export function PartyLine({ id, packet, sent }: Props) {
  const p = usePalette();
  const acts = usePacketActions(packet.id);
  const [doing, setDoing] = useState<Doing>(null);
  const party = sent.plan.parties.find((x) => x.id === id)!;
  const s = sent.parties.find((x) => x.partyId === id)!;
  const under = packet.status === 'at_gate' && s.status !== 'dropped';
  const untouched = under && isUntouched(sent, id);
  const [head, tail] = statusWords(party, s, packet.timeZone);
  const bad = s.status === 'declined' || s.bounced || s.locked;
  const error = acts.host.error ?? acts.own.error ?? acts.change.error;
  const close = () => setDoing(null);
  return (
    <Stack testID={`party-${firstName(party.name)}`} gap={8}>
      <Row gap={8} align="start">
        <Token name={party.name} ink={party.ink} size={30} />
        <Stack grow>
          <Strong style={bad ? { color: p.wine } : null}>{head}</Strong>
          <Small>{tail}</Small>
          {s.bounced ? <Small tone="stop">{TEXT.theMessageCameBack(s.bounced)}</Small> : null}
          {s.nudges && s.turn ? (
            <Small>{TEXT.nudgedLast(s.nudges, when(s.lastNudgeAt!, packet.timeZone))}</Small>
          ) : null}
          {s.before.map((b) => (
            <Small key={b.at}>{TEXT.handedOverBy(b.name, b.reason)}</Small>
          ))}
        </Stack>
        {under ? <Menu party={party} s={s} acts={acts} untouched={untouched} onDo={setDoing} /> : null}
      </Row>
      {under ? <PartyActs packet={packet} party={party} s={s} acts={acts} /> : null}
      {error ? <Trouble error={error} /> : null}
      {doing === 'fix' ? <FixParty packet={packet} party={party} onClose={close} /> : null}
      {doing === 'act' ? <ChangeAct packet={packet} sent={sent} party={party} onClose={close} /> : null}
      {doing === 'drop' ? <RemoveParty packet={packet} sent={sent} party={party} onClose={close} /> : null}
    </Stack>
  );
}

interface OfParty {
  party: Party;
  s: PartyStatusView;
  acts: ReturnType<typeof usePacketActions>;
}

/** What is rarely done for a party. */
function Menu({ party, s, acts, untouched, onDo }: OfParty & { untouched: boolean; onDo: (what: Doing) => void }) {
  const first = firstName(party.name);
  const { id } = party;
  return (
    <DropMenu anchor={(open) => <IconButton name="more" label={TEXT.whatToDo(party.name)} onPress={open} />}>
      <MenuItem title={TEXT.correctNameOrAddress} onPress={() => onDo('fix')} />
      {s.turn && holdsGate(party) && byLink(party) ? (
        <MenuItem
          title={TEXT.nudgePartyNow(first)}
          onPress={() => acts.change.mutate({ type: 'nudge', partyIds: [id] })}
        />
      ) : null}
      {s.askedAt && byLink(party) ? (
        <MenuItem title={TEXT.sendANewLink} onPress={() => acts.change.mutate({ type: 'renew_link', partyId: id })} />
      ) : null}
      {untouched && !s.askedAt ? <MenuItem title={TEXT.changeWhatDoes(first)} onPress={() => onDo('act')} /> : null}
      {untouched ? <MenuItem title={TEXT.takeOut(first)} onPress={() => onDo('drop')} /> : null}
    </DropMenu>
  );
}

/** What a party needs now: the desk, one's own signature, another try, a letter. */
function PartyActs({ packet, party, s, acts: { host, own, change } }: OfParty & { packet: PacketView }) {
  const session = useSession();
  const { id } = party;
  const first = firstName(party.name);
  const waits = s.turn && holdsGate(party);
  const mine = !!party.memberId && party.memberId === session.data?.member?.id;
  const enter = (way: typeof host) => way.mutate(id, { onSuccess: ({ token }) => router.push(`/sign/${token}`) });
  return (
    <>
      {waits && !byLink(party) ? (
        <Button busy={host.isPending} onPress={() => enter(host)} testID={`host-${first}`}>
          {TEXT.openItForAtThis(first)}
        </Button>
      ) : null}
      {waits && mine ? (
        <Button kind="main" busy={own.isPending} onPress={() => enter(own)} testID="sign-myself">
          {TEXT.signNow}
        </Button>
      ) : null}
      {s.locked ? (
        <Button
          busy={change.isPending}
          onPress={() => change.mutate({ type: 'unlock', partyId: id })}
          testID={`unlock-${first}`}
        >
          {TEXT.letTryAgain(first)}
        </Button>
      ) : null}
      {s.wantsLetter ? (
        <Actions>
          {LETTER_WAYS.map((way) => (
            <Button
              key={way}
              busy={change.isPending}
              onPress={() => change.mutate({ type: 'letter', partyId: id, way, day: todayIn(packet.timeZone) })}
              testID={`letter-${way}-${first}`}
            >
              {way === 'post' ? TEXT.letterMailedToday : TEXT.letterHandedOverToday}
            </Button>
          ))}
        </Actions>
      ) : null}
    </>
  );
}

const todayIn = (timeZone: string) => dayOf(new Date().toISOString(), timeZone);

/** Returns a party's status as a line and a smaller one. */
function statusWords(party: Party, s: PartyStatusView, timeZone: string): [string, string] {
  const first = firstName(party.name);
  const on = s.device ? TEXT.onA(s.device) : '';
  const at = (iso: string | null) => (iso ? when(iso, timeZone) : '');
  const seen = s.seenAt && at(s.seenAt) !== at(s.openedAt) ? TEXT.lastSeen(at(s.seenAt)) : '';
  const role = sideLabel(party.side, party.ordinal);
  const host = s.hostName ? TEXT.atSDesk(s.hostName) : '';
  if (receives(party) && s.askedAt && s.status !== 'dropped') return delivery(party, s, at);
  switch (s.status) {
    case 'done':
      return [TEXT.isDone(first), `${at(s.doneAt)}${on}${host}, ${count(s.total, 'mark')}`];
    case 'declined':
      return [TEXT.declined(first), `“${s.reason}”`];
    case 'excused':
      return [TEXT.wasNotNeeded(first), TEXT.anotherAtThisGateWas];
    case 'dropped':
      return [TEXT.wasTakenOut(first), `“${s.reason}”`];
    case 'in_progress':
    case 'opened':
      return s.again
        ? [TEXT.hasAChangeToInitial(first), TEXT.openedToGo(at(s.openedAt), on, seen, count(s.left, 'place'))]
        : !holdsGate(party)
          ? [TEXT.hasACopy(first), TEXT.openedAndSeen(at(s.openedAt), on, seen)]
          : [
              TEXT.ofDoneBy(first, s.total - s.left, s.total),
              TEXT.openedToGoInPerson(at(s.openedAt), on, seen, host, count(s.left, 'place')),
            ];
    case 'asked':
      if (s.again) return [TEXT.hasAChangeToInitial(first), TEXT.askedNotOpenedYet(at(s.askedAt))];
      if (!byLink(party)) return [TEXT.signsAtTheDesk(first), TEXT.since(role, at(s.askedAt))];
      return [
        !holdsGate(party) ? TEXT.wasSentACopy(first) : TEXT.hasNotOpenedItYet(first),
        TEXT.asked(at(s.askedAt), party.email || party.phone || role),
      ];
    default: {
      if (!holdsGate(party)) return [TEXT.getsACopy(party.name), TEXT.onceEveryoneHasSigned];
      return [
        TEXT.comesLater(first),
        `${role}, ${ACT_FACTS[party.act].does}${s.shownAt ? TEXT.mayReadAlongSince(at(s.shownAt)) : ''}`,
      ];
    }
  }
}

/** Returns the status of a party that receives a delivery. */
function delivery(party: Party, s: PartyStatusView, at: (iso: string | null) => string): [string, string] {
  const first = firstName(party.name);
  const counts = s.countsFrom ? TEXT.countsAsDeliveredOn(shortDay(s.countsFrom.day)) : TEXT.doesNotCountAsDelivered;
  const head = s.openedAt
    ? TEXT.openedIt(first)
    : s.wantsLetter
      ? TEXT.isToGetALetter(first)
      : s.letter
        ? TEXT.aLetterWentTo(first)
        : s.status === 'done'
          ? TEXT.deliveredTo(first)
          : TEXT.hasNotOpenedItYet(first);
  const steps = [
    s.openedAt ? TEXT.openedAt(at(s.openedAt)) : s.arrivedAt ? TEXT.arrived(at(s.arrivedAt)) : TEXT.sent(at(s.askedAt)),
    s.letter ? `${s.letter.way === 'post' ? TEXT.mailed : TEXT.handedOver} ${shortDay(s.letter.day)}` : '',
    counts,
  ];
  return [head, steps.filter(Boolean).join(', ')];
}

/** Correcting a party's name and addresses: the old link ends, a new one is sent. */
function FixParty({ packet, party, onClose }: { packet: PacketView; party: Party; onClose: () => void }) {
  const { change } = usePacketActions(packet.id);
  const session = useSession();
  const [to, setTo] = useState({ name: party.name, email: party.email, phone: party.phone ?? '' });
  const [language, setLanguage] = useState(party.language ?? 'en');
  return (
    <Card testID="fix-party">
      <Strong>{TEXT.correctParty(party.name)}</Strong>
      <Small>{TEXT.theOldLinkStopsWorking}</Small>
      <NameAndEmail value={to} onChange={setTo} testID="fix" />
      <Input label={TEXT.phone} value={to.phone} inputMode="tel" onChangeText={(phone) => setTo({ ...to, phone })} />
      <Choice
        wrap
        label={TEXT.language}
        value={language}
        options={(session.data?.languages ?? []).map((l) => ({ value: l.tag, label: l.name }))}
        onChange={setLanguage}
      />
      <DoOrLeave
        label={TEXT.correct}
        busy={change.isPending}
        error={change.error}
        onDo={() =>
          change.mutate(
            { type: 'correct_party', partyId: party.id, ...to, phone: to.phone.trim() || null, language },
            { onSuccess: onClose },
          )
        }
        onLeave={onClose}
        testID="fix-now"
      />
    </Card>
  );
}
