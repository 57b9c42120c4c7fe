/** A selected printed place: accept it as read, correct it, or dismiss it. */
import {
  KINDS,
  MARK_KINDS,
  type MarkKind,
  type PacketParty,
  type Proposal,
  puts,
  calledOf,
  twinsOf,
} from '@gatepath/core/packet';
import { useWide } from '../../ui/hooks';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, IconButton } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { BarButton } from './selection-bar';
import { BAR_TEXT, UndoRedo } from './bar-parts';
import { Either, questionOf } from './either';
import { partyInHand } from './desk-state';
import { useDesk, useDeskActs } from './use-desk';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

const PRINTED = MARK_KINDS.filter((k) => KINDS[k].printed);

export function ProposalBar({ proposal }: { proposal: Proposal }) {
  const wide = useWide();
  const { accept, dismiss, pickProposal } = useDeskActs();
  const { parties, partyId, proposals } = useDesk((s) => ({
    parties: s.draft.parties,
    partyId: partyInHand(s),
    proposals: s.view.proposals,
  }));
  const party = parties.find((x) => x.id === proposal.partyId);
  const signers = parties.filter(puts);
  // A foot or margin is decided once for all pages.
  const all = twinsOf(proposal, proposals);
  // Without a name on the page it is for the chosen party.
  const to = party ?? signers.find((x) => x.id === partyId) ?? null;
  const question = questionOf(parties, proposal);
  return (
    <>
      <Row>
        <Body numberOfLines={2} grow style={{ color: BAR_TEXT, fontSize: 15 }}>
          {question ??
            `${proposal.doubtful ? TEXT.uncertain : TEXT.printedHere}: ${KINDS[proposal.kind].word}${proposal.label ? `, “${proposal.label}”` : ''}`}
        </Body>
        <IconButton name="close" label={TEXT.letGo} color={BAR_TEXT} onPress={() => pickProposal(null)} />
      </Row>
      {question ? <Either places={all} isOnBar /> : null}
      <Row gap={8} align="stretch" wrap>
        {to && !question ? (
          <Button kind="main" testID="accept-one" onPress={() => accept(all, party ? {} : { partyId: to.id })}>
            {all.length > 1 ? TEXT.acceptOnPages(calledOf(to), all.length) : TEXT.acceptFor(calledOf(to))}
          </Button>
        ) : null}
        <Corrections all={all} to={to} kind={proposal.kind} signers={signers} />
        <BarButton onPress={() => dismiss(all)} testID="dismiss-one">
          {TEXT.dismiss}
        </BarButton>
      </Row>
      {wide ? null : (
        <Row align="stretch" justify="end">
          <UndoRedo />
        </Row>
      )}
    </>
  );
}

interface CorrectionsProps {
  /** The places that are decided together. */
  all: Proposal[];
  /** Who they are for; null if that is not known. */
  to: PacketParty | null;
  kind: MarkKind;
  signers: PacketParty[];
}

/** Accepting places for somebody else, or as something else. */
function Corrections({ all, to, kind, signers }: CorrectionsProps) {
  const { accept } = useDeskActs();
  return (
    <>
      {signers.length > 1 ? (
        <DropMenu
          anchor={(open) => (
            <BarButton onPress={open} testID="accept-for">
              {TEXT.forSomeoneElse}
            </BarButton>
          )}
        >
          {signers.map((x) => (
            <MenuItem key={x.id} title={x.name} onPress={() => accept(all, { partyId: x.id })} />
          ))}
        </DropMenu>
      ) : null}
      {to ? (
        <DropMenu
          anchor={(open) => (
            <BarButton onPress={open} testID="accept-as">
              {TEXT.changeTheKind}
            </BarButton>
          )}
        >
          {PRINTED.filter((k) => k !== kind).map((k) => (
            <MenuItem key={k} title={KINDS[k].word} onPress={() => accept(all, { partyId: to.id, kind: k })} />
          ))}
        </DropMenu>
      ) : null}
    </>
  );
}
