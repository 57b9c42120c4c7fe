/** What the sender can do with a packet that is on its way, and what comes next if nobody does anything. */
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { PacketView, SentView } from '@gatepath/contract';
import { ACTS, holdsGate, SIDES, type Act, type Gate, type Side } from '@gatepath/core/routing';
import { firstName, listWords, SIDE_WORDS } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { DayField } from '../../ui/day-field';
import { Input } from '../../ui/input';
import { Button, Card, Choice, IconButton, Note, Trouble } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { dayWords, when } from './words';

interface Props {
  packet: PacketView;
  sent: SentView;
}

/** Questions that wait for an answer, and those that have one. */
export function QuestionsCard({ packet, sent }: Props) {
  if (!sent.questions.length) return null;
  return (
    <Card testID="questions">
      <Heading>Questions</Heading>
      {sent.questions.map((q) => (
        <QuestionLine key={q.id} packet={packet} sent={sent} question={q} />
      ))}
    </Card>
  );
}

function QuestionLine({ packet, sent, question: q }: Props & { question: SentView['questions'][number] }) {
  const { change } = usePacketActions(packet.id);
  const [text, setText] = useState('');
  const name = sent.plan.parties.find((p) => p.id === q.partyId)?.name ?? 'Somebody';
  return (
    <View style={{ gap: 6 }}>
      <Strong>{`${firstName(name)}: “${q.text}”`}</Strong>
      <Small>{when(q.at, packet.timeZone)}</Small>
      {q.answer ? (
        <Body>{`${q.answer.by}: “${q.answer.text}”`}</Body>
      ) : (
        <>
          <Input
            label={`Your answer to ${firstName(name)}`}
            value={text}
            onChangeText={setText}
            multiline
            testID="answer-text"
          />
          {change.isError ? <Trouble error={change.error} /> : null}
          <Button
            kind="main"
            disabled={!text.trim()}
            busy={change.isPending}
            onPress={() => change.mutate({ type: 'answer', questionId: q.id, text })}
            style={{ alignSelf: 'flex-start' }}
            testID="answer-now"
          >
            Send the answer
          </Button>
        </>
      )}
    </View>
  );
}

/** What happens by itself: reminders, the warning, the last day; and moving it. */
export function AheadCard({ packet, sent }: Props) {
  const { change } = usePacketActions(packet.id);
  const [day, setDay] = useState('');
  const lapsed = packet.status === 'lapsed';
  if (packet.status !== 'at_gate' && !lapsed) return null;
  const name = (id: string | null) => firstName(sent.plan.parties.find((p) => p.id === id)?.name ?? '');
  const lastDay = sent.plan.schedule?.lastDay ?? '';
  return (
    <Card testID="ahead">
      <Heading>{lapsed ? 'Lapsed' : 'What comes by itself'}</Heading>
      {lapsed ? (
        <Body>
          The last day passed. Extend it and everyone who is waited for gets a new link; what was signed is kept.
        </Body>
      ) : sent.ahead.length ? (
        sent.ahead
          .slice(0, 8)
          .map((a) => (
            <Body key={`${a.what}${a.day}${a.partyId}`}>
              {`${dayWords(a.day)}: ${a.what === 'nudge' ? `reminder to ${name(a.partyId)}` : a.what === 'warning' ? 'warning before it lapses' : 'last day for signing'}`}
            </Body>
          ))
      ) : (
        <Small>No reminders and no last day.</Small>
      )}
      {change.isError ? <Trouble error={change.error} /> : null}
      {lapsed ? null : (
        <Button
          busy={change.isPending && change.variables?.type === 'nudge'}
          onPress={() => change.mutate({ type: 'nudge', partyIds: [] })}
          style={{ alignSelf: 'flex-start' }}
          testID="nudge-now"
        >
          Remind who is waited for now
        </Button>
      )}
      <View style={{ flexDirection: 'row', gap: 10, alignItems: 'flex-end' }}>
        <View style={{ flex: 1 }}>
          <DayField
            label={lastDay ? 'New last day' : 'Set a last day'}
            value={day || lastDay}
            onChange={setDay}
            testID="extend-day"
          />
        </View>
        <Button
          disabled={!day || day === lastDay}
          busy={change.isPending && change.variables?.type === 'extend'}
          onPress={() => change.mutate({ type: 'extend', lastDay: day }, { onSuccess: () => setDay('') })}
          testID="extend-now"
        >
          {lapsed ? 'Extend' : 'Set'}
        </Button>
      </View>
    </Card>
  );
}

const ACT_LABELS: Record<Act, string> = {
  sign: 'Signs',
  approve: 'Approves',
  desk: 'Signs at the desk',
  copy: 'Gets a copy',
};

/** Changing who and what is still ahead: the order of gates, new people, new documents. */
export function ChangeAhead({ packet, sent }: Props) {
  const [open, setOpen] = useState<'person' | 'document' | 'order' | null>(null);
  const { plan } = sent;
  if (packet.status !== 'at_gate') return null;
  const later = plan.gates.slice(sent.gate + 1);
  const inPacket = new Set(plan.documents.map((d) => d.id));
  const addable = packet.documents.filter((d) => d.status === 'ready' && !d.replacedBy && !inPacket.has(d.id));
  if (open === 'person') return <NewPerson packet={packet} sent={sent} onClose={() => setOpen(null)} />;
  if (open === 'document')
    return <NewDocument packet={packet} sent={sent} documents={addable} onClose={() => setOpen(null)} />;
  if (open === 'order') return <Order packet={packet} sent={sent} onClose={() => setOpen(null)} />;
  return (
    <Card>
      <Heading>Change what is ahead</Heading>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button icon="account-plus" onPress={() => setOpen('person')} testID="add-person">
          Add a person
        </Button>
        {later.length > 1 ? <Button onPress={() => setOpen('order')}>Change the order</Button> : null}
        {addable.length && later.length ? (
          <Button icon="file-plus" onPress={() => setOpen('document')}>
            Add a document
          </Button>
        ) : null}
      </View>
      <Small>To change a page, touch it in the ledger.</Small>
    </Card>
  );
}

function NewPerson({ packet, sent, onClose }: Props & { onClose: () => void }) {
  const { change } = usePacketActions(packet.id);
  const { plan } = sent;
  const [who, setWho] = useState({ name: '', email: '' });
  const [side, setSide] = useState<Side>('seller');
  const [act, setAct] = useState<Act>('sign');
  const [after, setAfter] = useState(String(plan.gates.length - 1));
  const [documents, setDocuments] = useState(plan.documents.map((d) => d.id));
  const [initials, setInitials] = useState(true);
  const signs = act === 'sign' || act === 'desk';
  return (
    <Card testID="new-person">
      <Heading>Add a person</Heading>
      <Input label="Name" value={who.name} onChangeText={(name) => setWho({ ...who, name })} testID="new-name" />
      <Input
        label="Email"
        value={who.email}
        inputMode="email"
        autoCapitalize="none"
        onChangeText={(email) => setWho({ ...who, email })}
        testID="new-email"
      />
      <Choice
        wrap
        label="Side"
        value={side}
        options={SIDES.map((s) => ({ value: s, label: SIDE_WORDS[s] }))}
        onChange={setSide}
      />
      <Choice
        wrap
        label="What they do"
        value={act}
        options={ACTS.map((a) => ({ value: a, label: ACT_LABELS[a] }))}
        onChange={setAct}
      />
      {act === 'copy' ? null : (
        <>
          <Small>A gate of their own comes</Small>
          <Choice
            wrap
            label="When"
            value={after}
            options={plan.gates
              .map((_, i) => i)
              .filter((i) => i >= sent.gate)
              .map((i) => ({ value: String(i), label: `after gate ${i + 1}` }))}
            onChange={setAfter}
          />
        </>
      )}
      {signs ? (
        <>
          {plan.documents.map((d) => (
            <Switch
              key={d.id}
              label={`Signs ${d.name}`}
              on={documents.includes(d.id)}
              onChange={(on) => setDocuments(on ? [...documents, d.id] : documents.filter((x) => x !== d.id))}
            />
          ))}
          <Switch label="Initials every page of them" on={initials} onChange={setInitials} />
          <Small>Their places are put where the pages have room, near the signatures that are there.</Small>
        </>
      ) : null}
      {change.isError ? <Trouble error={change.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          kind="main"
          busy={change.isPending}
          onPress={() =>
            change.mutate(
              {
                type: 'add_party',
                ...who,
                phone: null,
                side,
                act,
                after: Number(after),
                documentIds: signs ? documents : [],
                initials: signs && initials,
              },
              { onSuccess: onClose },
            )
          }
          testID="new-now"
        >
          Add
        </Button>
        <Button onPress={onClose}>Leave it</Button>
      </View>
    </Card>
  );
}

function NewDocument({
  packet,
  sent,
  documents,
  onClose,
}: Props & { documents: PacketView['documents']; onClose: () => void }) {
  const { change } = usePacketActions(packet.id);
  const later = sent.plan.gates
    .slice(sent.gate + 1)
    .flatMap((g) => g.partyIds)
    .map((id) => sent.plan.parties.find((p) => p.id === id)!)
    .filter((p) => holdsGate(p) && p.act !== 'approve');
  const [documentId, setDocument] = useState(documents[0]!.id);
  const [signers, setSigners] = useState(later.map((p) => p.id));
  return (
    <Card>
      <Heading>Add a document for those ahead</Heading>
      <Choice
        wrap
        label="Document"
        value={documentId}
        options={documents.map((d) => ({ value: d.id, label: d.name }))}
        onChange={setDocument}
      />
      {later.map((p) => (
        <Switch
          key={p.id}
          label={`${firstName(p.name)} signs it`}
          on={signers.includes(p.id)}
          onChange={(on) => setSigners(on ? [...signers, p.id] : signers.filter((x) => x !== p.id))}
        />
      ))}
      <Small>Those whose gate is open or passed do not get it.</Small>
      {change.isError ? <Trouble error={change.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          kind="main"
          busy={change.isPending}
          onPress={() => change.mutate({ type: 'add_document', documentId, partyIds: signers }, { onSuccess: onClose })}
        >
          Add
        </Button>
        <Button onPress={onClose}>Leave it</Button>
      </View>
    </Card>
  );
}

function Order({ packet, sent, onClose }: Props & { onClose: () => void }) {
  const { change } = usePacketActions(packet.id);
  const [gates, setGates] = useState<Gate[]>(sent.plan.gates);
  const move = (i: number, by: number) => {
    const next = [...gates];
    const [g] = next.splice(i, 1);
    next.splice(i + by, 0, g!);
    setGates(next);
  };
  return (
    <Card>
      <Heading>Order of the gates ahead</Heading>
      {gates.map((g, i) => {
        if (i <= sent.gate) return null;
        const names = listWords(g.partyIds.map((id) => firstName(sent.plan.parties.find((p) => p.id === id)!.name)));
        return (
          <View key={g.id} style={{ flexDirection: 'row', alignItems: 'center' }}>
            <Body style={{ flex: 1 }}>{`${i + 1}. ${names}`}</Body>
            <IconButton
              name="arrow-up"
              label={`${names} earlier`}
              disabled={i === sent.gate + 1}
              onPress={() => move(i, -1)}
            />
            <IconButton
              name="arrow-down"
              label={`${names} later`}
              disabled={i === gates.length - 1}
              onPress={() => move(i, 1)}
            />
          </View>
        );
      })}
      {change.isError ? <Trouble error={change.error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          kind="main"
          busy={change.isPending}
          onPress={() => change.mutate({ type: 'set_path', gates }, { onSuccess: onClose })}
        >
          Use this order
        </Button>
        <Button onPress={onClose}>Leave it</Button>
      </View>
    </Card>
  );
}

/** Ending it: withdrawn for good, or taken back into a draft of a new version. */
export function EndCard({ packet }: { packet: PacketView }) {
  const { withdraw, newVersion } = usePacketActions(packet.id);
  const [way, setWay] = useState<'withdraw' | 'version' | null>(null);
  const [reason, setReason] = useState('');
  if (packet.status !== 'at_gate') return null;
  if (!way)
    return (
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button kind="quiet" onPress={() => setWay('version')} testID="new-version">
          Take it back and change it
        </Button>
        <Button kind="quiet" onPress={() => setWay('withdraw')} testID="withdraw">
          Withdraw this packet
        </Button>
      </View>
    );
  const busy = withdraw.isPending || newVersion.isPending;
  const error = withdraw.error ?? newVersion.error;
  return (
    <Card>
      <Heading>{way === 'withdraw' ? 'Withdraw this packet' : 'Take it back into a new version'}</Heading>
      <Body>
        {way === 'withdraw'
          ? 'Everyone who was asked is told, and no link works any more.'
          : 'This packet ends and everyone who was asked is told why. A draft of the new version opens on the desk; signatures given so far do not carry over.'}
      </Body>
      <Input label="Why?" value={reason} onChangeText={setReason} testID="end-reason" />
      {error ? <Trouble error={error} /> : null}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          kind={way === 'withdraw' ? 'stop' : 'main'}
          busy={busy}
          onPress={() =>
            way === 'withdraw'
              ? withdraw.mutate(reason)
              : newVersion.mutate(reason, { onSuccess: (draft) => router.replace(`/packets/${draft.id}`) })
          }
          testID="end-now"
        >
          {way === 'withdraw' ? 'Withdraw' : 'Take it back'}
        </Button>
        <Button onPress={() => setWay(null)}>Keep it going</Button>
      </View>
    </Card>
  );
}

const KIN: Record<PacketView['kin'][number]['how'], string> = {
  new_version: 'Its new version',
  old_version: 'New version of',
  late_round: 'Its late signing round',
  first_round: 'Late signing round of',
};

/** Packets this one came of, or that came of it. */
export function KinNote({ packet }: { packet: PacketView }) {
  if (!packet.kin.length) return null;
  return (
    <Note
      tone="plain"
      title="Belongs together"
      action={
        <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
          {packet.kin.map((k) => (
            <Button key={k.id + k.how} kind="quiet" onPress={() => router.push(`/packets/${k.id}`)}>
              {`${KIN[k.how]}: ${k.name}`}
            </Button>
          ))}
        </View>
      }
    />
  );
}
