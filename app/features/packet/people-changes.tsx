/** Changing what was asked of somebody who has done nothing yet: taken out, or another act. */
import { useState } from 'react';
import type { PacketView, SentView } from '@gatepath/contract';
import { ACT_FACTS, ACTS, holdsGate, puts, type Act } from '@gatepath/core/packet';
import { firstName, upperFirst } from '@gatepath/core/text';
import { usePacketActions } from '../../api/hooks';
import { DoOrLeave } from '../../ui/do-or-leave';
import { Input } from '../../ui/input';
import { Card, Choice } from '../../ui/pieces';
import { Body, Small, Strong } from '../../ui/text';
import { SignsWhat } from './signs-what';

type Party = SentView['plan']['parties'][number];

interface Props {
  packet: PacketView;
  party: Party;
  onClose: () => void;
}

/** Whether a person has put nothing on a page, and is still needed: then what they have to do can be changed. */
export function isUntouched(sent: SentView, partyId: string): boolean {
  const s = sent.parties.find((x) => x.partyId === partyId);
  if (!s || s.again || sent.fills.some((f) => f.partyId === partyId)) return false;
  return ['waiting', 'asked', 'opened', 'in_progress'].includes(s.status);
}

export function RemoveParty({ packet, sent, party, onClose }: Props & { sent: SentView }) {
  const { change } = usePacketActions(packet.id);
  const [reason, setReason] = useState('');
  const first = firstName(party.name);
  const at = sent.parties.find((x) => x.partyId === party.id);
  const told = !!at && (at.askedAt !== null || at.shownAt !== null);
  return (
    <Card testID="drop-party">
      <Strong>{`Take ${party.name} out of the packet`}</Strong>
      <Body>{`Their places go${told ? ', their link ends' : ''}, and the record says so.${told ? ` ${first} is told why.` : ''}`}</Body>
      <Input
        label={told ? `Why? ${first} will read it` : 'Why? It goes into the record'}
        value={reason}
        onChangeText={setReason}
        testID="drop-reason"
      />
      <DoOrLeave
        label={`Take ${first} out`}
        stops
        busy={change.isPending}
        disabled={!reason.trim()}
        error={change.error}
        onDo={() => change.mutate({ type: 'drop_party', partyId: party.id, reason }, { onSuccess: onClose })}
        onLeave={onClose}
        testID="drop-now"
      />
    </Card>
  );
}

export function ChangeAct({ packet, sent, party, onClose }: Props & { sent: SentView }) {
  const { change } = usePacketActions(packet.id);
  const [act, setAct] = useState<Act>(party.act);
  const [documents, setDocuments] = useState(sent.plan.documents.map((d) => d.id));
  const [initials, setInitials] = useState(true);
  const first = firstName(party.name);
  const stands = sent.plan.gates.some((g) => g.partyIds.includes(party.id));
  const signsNow = puts({ act }) && !puts(party);
  return (
    <Card testID="change-act">
      <Strong>{`What ${party.name} does`}</Strong>
      <Choice
        wrap
        label={`What ${first} does`}
        value={act}
        options={ACTS.map((a) => ({ value: a, label: upperFirst(ACT_FACTS[a].does) }))}
        onChange={setAct}
      />
      {puts(party) && !puts({ act }) ? <Small>{`The places of ${first} on the pages go.`}</Small> : null}
      {!stands && holdsGate({ act }) ? <Small>{`${first} gets a gate of their own at the end.`}</Small> : null}
      {signsNow ? (
        <SignsWhat
          documents={sent.plan.documents}
          signed={documents}
          onSigned={setDocuments}
          initials={initials}
          onInitials={setInitials}
        />
      ) : null}
      <DoOrLeave
        label="Change it"
        busy={change.isPending}
        disabled={act === party.act || (signsNow && !documents.length)}
        error={change.error}
        onDo={() =>
          change.mutate(
            {
              type: 'change_act',
              partyId: party.id,
              act,
              after: sent.plan.gates.length - 1,
              documentIds: signsNow ? documents : [],
              initials: signsNow && initials,
            },
            { onSuccess: onClose },
          )
        }
        onLeave={onClose}
        testID="act-now"
      />
    </Card>
  );
}
