/** Changing what was asked of a person who has done nothing yet: removing them, or another act. */
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
import { TEXT } from './words';

type Party = SentView['plan']['parties'][number];

interface Props {
  packet: PacketView;
  party: Party;
  onClose: () => void;
}

/** Returns whether a person has done nothing on a page and is still needed: then their act can be changed. */
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
      <Strong>{TEXT.takeOutOfThePacket(party.name)}</Strong>
      <Body>{TEXT.theirPlacesGo(told ? TEXT.theirLinkEnds : '', told ? TEXT.isNotifiedWhy(first) : '')}</Body>
      <Input
        label={told ? TEXT.whyWillRead(first) : TEXT.whyItGoesInto}
        value={reason}
        onChangeText={setReason}
        testID="drop-reason"
      />
      <DoOrLeave
        label={TEXT.takeOut(first)}
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
      <Strong>{TEXT.whatDoes(party.name)}</Strong>
      <Choice
        wrap
        label={TEXT.whatDoesOf(first)}
        value={act}
        options={ACTS.map((a) => ({ value: a, label: upperFirst(ACT_FACTS[a].does) }))}
        onChange={setAct}
      />
      {puts(party) && !puts({ act }) ? <Small>{TEXT.thePlaces(first)}</Small> : null}
      {!stands && holdsGate({ act }) ? <Small>{TEXT.getsAGateOfTheir(first)}</Small> : null}
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
        label={TEXT.changeIt}
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
