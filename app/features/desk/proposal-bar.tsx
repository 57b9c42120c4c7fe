/** A selected printed place: accept it as read, correct it, or dismiss it. */
import { KINDS, MARK_KINDS, type Proposal, puts, calledOf, twinsOf } from '@gatepath/core/packet';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, IconButton } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { BarButton } from './selection-bar';
import { BAR_TEXT, UndoRedo } from './bar-parts';
import { Either, questionOf } from './either';
import type { Desk } from './use-desk';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

const PRINTED = MARK_KINDS.filter((k) => KINDS[k].printed);

export function ProposalBar({ desk, proposal }: { desk: Desk; proposal: Proposal }) {
  const party = desk.draft.parties.find((x) => x.id === proposal.partyId);
  const signers = desk.draft.parties.filter(puts);
  // A foot or margin is decided once for all pages.
  const all = twinsOf(proposal, desk.view.proposals);
  // Without a name on the page it is for the chosen party.
  const to = party ?? signers.find((x) => x.id === desk.partyId) ?? null;
  const question = questionOf(desk, proposal);
  return (
    <>
      <Row>
        <Body numberOfLines={2} grow style={{ color: BAR_TEXT, fontSize: 15 }}>
          {question ??
            `${proposal.doubtful ? TEXT.uncertain : TEXT.printedHere}: ${KINDS[proposal.kind].word}${proposal.label ? `, “${proposal.label}”` : ''}`}
        </Body>
        <IconButton name="close" label={TEXT.letGo} color={BAR_TEXT} onPress={() => desk.pickProposal(null)} />
      </Row>
      {question ? <Either desk={desk} places={all} isOnBar /> : null}
      <Row gap={8} align="stretch" wrap>
        {to && !question ? (
          <Button kind="main" testID="accept-one" onPress={() => desk.accept(all, party ? {} : { partyId: to.id })}>
            {all.length > 1 ? TEXT.acceptOnPages(calledOf(to), all.length) : TEXT.acceptFor(calledOf(to))}
          </Button>
        ) : null}
        {signers.length > 1 ? (
          <DropMenu
            anchor={(open) => (
              <BarButton onPress={open} testID="accept-for">
                {TEXT.forSomeoneElse}
              </BarButton>
            )}
          >
            {signers.map((x) => (
              <MenuItem key={x.id} title={x.name} onPress={() => desk.accept(all, { partyId: x.id })} />
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
            {PRINTED.filter((k) => k !== proposal.kind).map((k) => (
              <MenuItem key={k} title={KINDS[k].word} onPress={() => desk.accept(all, { partyId: to.id, kind: k })} />
            ))}
          </DropMenu>
        ) : null}
        <BarButton onPress={() => desk.dismiss(all)} testID="dismiss-one">
          {TEXT.dismiss}
        </BarButton>
      </Row>
      <Row align="stretch" justify="end">
        <UndoRedo desk={desk} />
      </Row>
    </>
  );
}
