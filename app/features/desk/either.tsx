/** Shows what an uncertain place can be: two buttons, each of which accepts one reading on every page where the place repeats. */
import { calledOf, KINDS, type MarkKind, type PacketParty, type Proposal } from '@gatepath/core/packet';
import { Button } from '../../ui/pieces';
import { Row } from '../../ui/layout';
import { BarButton } from './selection-bar';
import { useDesk, useDeskActs } from './use-desk';
import { TEXT } from './words';
import { itemAt } from '@gatepath/core/sure';

/** One reading of a place. */
interface Reading {
  kind: MarkKind;
  party: PacketParty;
}

/** Returns both readings of an uncertain place, the more probable one first; null if it has only one. */
function readingsOf(parties: readonly PacketParty[], place: Proposal): [Reading, Reading] | null {
  const { other } = place;
  const find = (id: string | null | undefined) => parties.find((x) => x.id === id);
  const [party, otherParty] = [find(place.partyId), find(other?.partyId)];
  if (!other || !party || !otherParty) return null;
  return [
    { kind: place.kind, party },
    { kind: other.kind, party: otherParty },
  ];
}

const wordOf = (kind: MarkKind) => KINDS[kind].word.toLowerCase();

/** Returns the question that an uncertain place asks the user, naming both readings; null if it has only one. */
export function questionOf(parties: readonly PacketParty[], place: Proposal): string | null {
  const readings = readingsOf(parties, place);
  if (!readings) return null;
  const [one, two] = readings;
  return TEXT.eitherOf(wordOf(one.kind), calledOf(one.party), wordOf(two.kind), calledOf(two.party));
}

/**
 * Shows a button for each of the two readings of an uncertain place; nothing for a place with one reading.
 *
 * @param places   the place and those that are decided with it
 * @param isOnBar  whether the buttons are on the dark bar under the page
 */
export function Either({ places, isOnBar }: { places: Proposal[]; isOnBar?: boolean }) {
  const { accept: acceptAs } = useDeskActs();
  const parties = useDesk((s) => s.draft.parties);
  const readings = readingsOf(parties, itemAt(places, 0));
  if (!readings) return null;
  const pages = new Set(places.map((x) => x.page)).size;
  return (
    <Row gap={8} align="stretch" wrap>
      {readings.map(({ kind, party }, i) => {
        const words = TEXT.eitherFor(wordOf(kind), calledOf(party), pages);
        const testID = i ? 'either-other' : 'either-first';
        const accept = () => acceptAs(places, i ? { partyId: party.id, kind } : {});
        return isOnBar ? (
          <BarButton key={testID} testID={testID} onPress={accept}>
            {words}
          </BarButton>
        ) : (
          <Button key={testID} fit testID={testID} onPress={accept}>
            {words}
          </Button>
        );
      })}
    </Row>
  );
}
