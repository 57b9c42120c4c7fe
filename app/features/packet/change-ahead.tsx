/** Changing what is still ahead in a packet at a gate: the order of gates, new people, new documents. */
import { useState } from 'react';
import type { PacketView, SentView } from '@gatepath/contract';
import { ACTS, type Act, type Gate, holdsGate, puts, ACT_FACTS } from '@gatepath/core/packet';
import { SIDES, SIDE_WORDS, type Side, firstName, listWords, upperFirst } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { ActError, Button, Card, Choice, IconButton } from '../../ui/pieces';
import { DoOrLeave } from '../../ui/do-or-leave';
import { Switch } from '../../ui/switch';
import { Body, Heading, Small } from '../../ui/text';
import { SignsWhat } from './signs-what';
import { NameAndEmail } from '../people/name-and-email';
import { itemAt } from '@gatepath/core/sure';
import { TEXT } from './words';
import { Actions, Row } from '../../ui/layout';

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
      <Heading>{TEXT.changeWhatComesNext}</Heading>
      <Actions>
        <Button icon="account-plus" onPress={() => setOpen('person')} testID="add-person">
          {TEXT.addAPerson}
        </Button>
        {later.length > 1 ? <Button onPress={() => setOpen('order')}>{TEXT.changeTheOrder}</Button> : null}
        {addable.length && later.length ? (
          <Button icon="file-plus" onPress={() => setOpen('document')}>
            {TEXT.addADocument}
          </Button>
        ) : null}
      </Actions>
      {later.length || plan.readAlong ? (
        <Switch
          label={TEXT.peopleAtLaterGatesMay}
          on={plan.readAlong ?? false}
          onChange={(allowed) => change.mutate({ type: 'set_reading', allowed })}
          testID="read-along"
        />
      ) : null}
      <ActError of={change} />
      <Small>{TEXT.toChangeAPage}</Small>
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
      <Heading>{TEXT.addAPerson}</Heading>
      <NameAndEmail value={who} onChange={setWho} testID="new" />
      <Choice
        wrap
        label={TEXT.side}
        value={side}
        options={SIDES.map((s) => ({ value: s, label: SIDE_WORDS[s] }))}
        onChange={setSide}
      />
      <Choice
        wrap
        label={TEXT.whatTheyDo}
        value={act}
        options={ACTS.map((a) => ({ value: a, label: upperFirst(ACT_FACTS[a].does) }))}
        onChange={setAct}
      />
      {!holdsGate({ act }) ? null : (
        <>
          <Small>{TEXT.aGateOfTheirOwn}</Small>
          <Choice
            wrap
            label={TEXT.when}
            value={after}
            options={plan.gates
              .map((_, i) => i)
              .filter((i) => i >= sent.gate)
              .map((i) => ({ value: String(i), label: TEXT.afterGate(i + 1) }))}
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
        label={TEXT.add}
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
      <Heading>{TEXT.addADocumentAhead}</Heading>
      <Choice
        wrap
        label={TEXT.document}
        value={documentId}
        options={documents.map((d) => ({ value: d.id, label: d.name }))}
        onChange={setDocument}
      />
      {later.map((p) => (
        <Switch
          key={p.id}
          label={TEXT.signsIt(firstName(p.name))}
          on={signers.includes(p.id)}
          onChange={(on) => setSigners(on ? [...signers, p.id] : signers.filter((x) => x !== p.id))}
        />
      ))}
      <Small>{TEXT.peopleWhoseGateIsOpen}</Small>
      <DoOrLeave
        label={TEXT.add}
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
      <Heading>{TEXT.orderOfTheGatesAhead}</Heading>
      {gates.map((g, i) => {
        if (i <= sent.gate) return null;
        const names = listWords(g.partyIds.map((id) => firstName(sent.plan.parties.find((p) => p.id === id)!.name)));
        return (
          <Row key={g.id}>
            <Body grow>{`${i + 1}. ${names}`}</Body>
            <IconButton
              name="arrow-up"
              label={TEXT.earlier(names)}
              disabled={i === sent.gate + 1}
              onPress={() => move(i, -1)}
            />
            <IconButton
              name="arrow-down"
              label={TEXT.later(names)}
              disabled={i === gates.length - 1}
              onPress={() => move(i, 1)}
            />
          </Row>
        );
      })}
      <DoOrLeave
        label={TEXT.useThisOrder}
        busy={change.isPending}
        error={change.error}
        onDo={() => change.mutate({ type: 'set_path', gates }, { onSuccess: onClose })}
        onLeave={onClose}
      />
    </Card>
  );
}
