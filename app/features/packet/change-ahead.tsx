/** Changing who and what is still ahead of a packet on its way. */
import { useState } from 'react';
import { View } from 'react-native';
import type { PacketView, SentView } from '@gatepath/contract';
import { ACTS, type Act, type Gate, holdsGate, puts, ACT_FACTS } from '@gatepath/core/packet';
import { SIDES, SIDE_WORDS, type Side, firstName, listWords, upperFirst } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { Button, Card, Choice, IconButton, Trouble } from '../../ui/pieces';
import { DoOrLeave } from '../../ui/do-or-leave';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small } from '../../ui/text';
import { SignsWhat } from './signs-what';
import { NameAndEmail } from '../people/name-and-email';
import { itemAt } from '@gatepath/core/sure';

interface Props {
  packet: PacketView;
  sent: SentView;
}

/** Changing who and what is still ahead: the order of gates, new people, new documents. */
export function ChangeAhead({ packet, sent }: Props) {
  const [open, setOpen] = useState<'person' | 'document' | 'order' | null>(null);
  const { change } = usePacketActions(packet.id);
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
      <Heading>Change what comes next</Heading>
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
      {later.length || plan.readAlong ? (
        <Switch
          label="People at later gates may read along"
          on={plan.readAlong ?? false}
          onChange={(allowed) => change.mutate({ type: 'set_reading', allowed })}
          testID="read-along"
        />
      ) : null}
      {change.isError ? <Trouble error={change.error} /> : null}
      <Small>To change a page, or someone’s places on it, tap it in the ledger.</Small>
    </Card>
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function NewPerson({ packet, sent, onClose }: Props & { onClose: () => void }) {
  const { change } = usePacketActions(packet.id);
  const { plan } = sent;
  const [who, setWho] = useState({ name: '', email: '' });
  const [side, setSide] = useState<Side>('seller');
  const [act, setAct] = useState<Act>('sign');
  const [after, setAfter] = useState(String(plan.gates.length - 1));
  const [documents, setDocuments] = useState(plan.documents.map((d) => d.id));
  const [initials, setInitials] = useState(true);
  const signs = puts({ act });
  return (
    <Card testID="new-person">
      <Heading>Add a person</Heading>
      <NameAndEmail value={who} onChange={setWho} testID="new" />
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
        options={ACTS.map((a) => ({ value: a, label: upperFirst(ACT_FACTS[a].does) }))}
        onChange={setAct}
      />
      {!holdsGate({ act }) ? null : (
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
        <SignsWhat
          documents={plan.documents}
          signed={documents}
          onSigned={setDocuments}
          initials={initials}
          onInitials={setInitials}
        />
      ) : null}
      <DoOrLeave
        label="Add"
        busy={change.isPending}
        error={change.error}
        onDo={() =>
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
        onLeave={onClose}
        testID="new-now"
      />
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
    .filter((p) => puts(p));
  const [documentId, setDocument] = useState(itemAt(documents, 0).id);
  const [signers, setSigners] = useState(later.map((p) => p.id));
  return (
    <Card>
      <Heading>Add a document for the people ahead</Heading>
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
      <Small>People whose gate is open or done do not get it.</Small>
      <DoOrLeave
        label="Add"
        busy={change.isPending}
        error={change.error}
        onDo={() => change.mutate({ type: 'add_document', documentId, partyIds: signers }, { onSuccess: onClose })}
        onLeave={onClose}
      />
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
      <DoOrLeave
        label="Use this order"
        busy={change.isPending}
        error={change.error}
        onDo={() => change.mutate({ type: 'set_path', gates }, { onSuccess: onClose })}
        onLeave={onClose}
      />
    </Card>
  );
}
