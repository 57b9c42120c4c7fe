/** What the sender can do with a packet at a gate, and what comes next if nobody does anything. */
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { PacketView, SentView } from '@gatepath/contract';
import { firstName } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { DayField } from '../../ui/day-field';
import { DoOrLeave } from '../../ui/do-or-leave';
import { Input } from '../../ui/input';
import { ActError, Button, Card, Note } from '../../ui/pieces';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { TextMenu } from '../desk/text-menu';
import { dayWords } from '../../ui/dates';
import { when } from '../../ui/dates';
import { TEXT } from './words';
import { Actions, Row, Stack } from '../../ui/layout';

interface Props {
  packet: PacketView;
  sent: SentView;
}

/** Maximum number of letters of a reason, which everyone who was asked reads. */
const MOST_REASON = 400;

/** Questions that wait for an answer, and answered ones. */
export function QuestionsCard({ packet, sent }: Props) {
  if (!sent.questions.length) return null;
  return (
    <Card testID="questions">
      <Heading>{TEXT.questions}</Heading>
      {sent.questions.map((q) => (
        <QuestionLine key={q.id} packet={packet} sent={sent} question={q} />
      ))}
    </Card>
  );
}

function QuestionLine({ packet, sent, question: q }: Props & { question: SentView['questions'][number] }) {
  const { change } = usePacketActions(packet.id);
  const [text, setText] = useState('');
  const name = sent.plan.parties.find((p) => p.id === q.partyId)?.name ?? TEXT.somebody;
  return (
    <Stack gap={8}>
      <Strong>{`${firstName(name)}: “${q.text}”`}</Strong>
      <Small>{when(q.at, packet.timeZone)}</Small>
      {q.answer ? (
        <Body>{`${q.answer.by}: “${q.answer.text}”`}</Body>
      ) : (
        <>
          <Input
            label={TEXT.yourAnswer(firstName(name))}
            value={text}
            onChangeText={setText}
            multiline
            testID="answer-text"
          />
          <TextMenu value={text} onChange={setText} />
          <ActError of={change} />
          <Button
            kind="main"
            disabled={!text.trim()}
            busy={change.isPending}
            onPress={() => change.mutate({ type: 'answer', questionId: q.id, text })}
            fit
            testID="answer-now"
          >
            {TEXT.sendTheAnswer}
          </Button>
        </>
      )}
    </Stack>
  );
}

/** Nudging the people who are waited for, with one's own words if wanted. */
function NudgeNow({ packet }: Pick<Props, 'packet'>) {
  const { change } = usePacketActions(packet.id);
  const [saying, setSaying] = useState<string | null>(null);
  return (
    <>
      {saying === null ? null : (
        <>
          <Input
            label={TEXT.messageOptional}
            value={saying}
            onChangeText={setSaying}
            multiline
            maxLength={1000}
            testID="nudge-own-words"
          />
          <TextMenu value={saying} onChange={setSaying} />
        </>
      )}
      <ActError of={change} />
      <Actions>
        <Button
          busy={change.isPending && change.variables?.type === 'nudge'}
          onPress={() =>
            change.mutate(
              { type: 'nudge', partyIds: [], ...(saying?.trim() ? { words: saying } : {}) },
              { onSuccess: () => setSaying(null) },
            )
          }
          testID="nudge-now"
        >
          {TEXT.nudgeNow}
        </Button>
        {saying === null ? (
          <Button kind="quiet" onPress={() => setSaying('')} testID="nudge-say">
            {TEXT.addAMessage}
          </Button>
        ) : null}
      </Actions>
    </>
  );
}

/** What happens automatically: nudges, the warning, the last day; and changing it. */
export function AheadCard({ packet, sent }: Props) {
  const { change } = usePacketActions(packet.id);
  const [day, setDay] = useState('');
  const lapsed = packet.status === 'lapsed';
  if (packet.status !== 'at_gate' && !lapsed) return null;
  const name = (id: string | null) => firstName(sent.plan.parties.find((p) => p.id === id)?.name ?? '');
  const lastDay = sent.plan.schedule?.lastDay ?? '';
  return (
    <Card testID="ahead">
      <Heading>{lapsed ? TEXT.lapsed : TEXT.comingUp}</Heading>
      {lapsed ? (
        <Body>{TEXT.theLastDayPassedExtend}</Body>
      ) : sent.ahead.length ? (
        sent.ahead
          .slice(0, 8)
          .map((a) => (
            <Body key={`${a.what}${a.day}${a.partyId}`}>
              {`${dayWords(a.day)}: ${a.what === 'nudge' ? TEXT.nudgeTo(name(a.partyId)) : a.what === 'warning' ? TEXT.warningBeforeItLapses : TEXT.lastDayForSigning}`}
            </Body>
          ))
      ) : (
        <Small>{TEXT.noNudgesAndNoLast}</Small>
      )}
      {sent.forecast ? <ForecastLine forecast={sent.forecast} /> : null}
      {lapsed ? null : <NudgeNow packet={packet} />}
      <ActError of={change} />
      <Row gap={8} align="end">
        <Stack grow>
          <DayField
            label={lastDay ? TEXT.newLastDay : TEXT.setALastDay}
            value={day || lastDay}
            onChange={setDay}
            testID="extend-day"
          />
        </Stack>
        <Button
          disabled={!day || day === lastDay}
          busy={change.isPending && change.variables?.type === 'extend'}
          onPress={() => change.mutate({ type: 'extend', lastDay: day }, { onSuccess: () => setDay('') })}
          testID="extend-now"
        >
          {lapsed ? TEXT.extend : TEXT.set}
        </Button>
      </Row>
    </Card>
  );
}

/** When it will likely be executed, and what that is based on. */
function ForecastLine({ forecast: f }: { forecast: NonNullable<SentView['forecast']> }) {
  return (
    <View testID="forecast">
      <Strong>
        {f.likely === f.slow
          ? TEXT.likelyExecuted(dayWords(f.slow))
          : TEXT.likelyExecutedBy90Likely(dayWords(f.likely), dayWords(f.slow))}
      </Strong>
      <Small>{f.few ? TEXT.basedOnFewOfYour(f.from) : TEXT.basedOnHowLong(f.from)}</Small>
    </View>
  );
}

/** Ending it: withdrawn for good, or recalled into a draft of a new version. */
export function EndCard({ packet }: { packet: PacketView }) {
  const { withdraw, newVersion } = usePacketActions(packet.id);
  const [way, setWay] = useState<'withdraw' | 'version' | null>(null);
  const [reason, setReason] = useState('');
  if (packet.status !== 'at_gate') return null;
  if (!way)
    return (
      <Actions>
        <Button kind="quiet" onPress={() => setWay('version')} testID="new-version">
          {TEXT.recallAndChange}
        </Button>
        <Button kind="quiet" onPress={() => setWay('withdraw')} testID="withdraw">
          {TEXT.withdrawThisPacket}
        </Button>
      </Actions>
    );
  const busy = withdraw.isPending || newVersion.isPending;
  const error = withdraw.error ?? newVersion.error;
  return (
    <Card>
      <Heading>{way === 'withdraw' ? TEXT.withdrawThisPacket : TEXT.recallIntoANewVersion}</Heading>
      <Body>{way === 'withdraw' ? TEXT.everyoneWhoWasAsked : TEXT.thisPacketEndsAndEveryone}</Body>
      <Input label={TEXT.why} value={reason} onChangeText={setReason} testID="end-reason" />
      <TextMenu value={reason} onChange={(value) => setReason(value.slice(0, MOST_REASON))} />
      <DoOrLeave
        label={way === 'withdraw' ? TEXT.withdraw : TEXT.takeItBack}
        leave={TEXT.keepItOpen}
        stops={way === 'withdraw'}
        busy={busy}
        error={error}
        onDo={() =>
          way === 'withdraw'
            ? withdraw.mutate(reason)
            : newVersion.mutate(reason, { onSuccess: (draft) => router.replace(`/packets/${draft.id}`) })
        }
        onLeave={() => setWay(null)}
        testID="end-now"
      />
    </Card>
  );
}

const KIN: Record<PacketView['kin'][number]['how'], string> = {
  new_version: TEXT.itsNewVersion,
  old_version: TEXT.newVersionOf,
  late_round: TEXT.itsLateSigningRound,
  first_round: TEXT.lateSigningRoundFor,
};

/** Packets it was made from, or that were made from it. */
export function KinNote({ packet }: { packet: PacketView }) {
  if (!packet.kin.length) return null;
  return (
    <Note
      tone="plain"
      title={TEXT.relatedPackets}
      action={
        <Row align="stretch" wrap>
          {packet.kin.map((k) => (
            <Button key={k.id + k.how} kind="quiet" onPress={() => router.push(`/packets/${k.id}`)}>
              {`${KIN[k.how]}: ${k.name}`}
            </Button>
          ))}
        </Row>
      }
    />
  );
}
