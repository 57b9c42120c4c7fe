/** What was read on the pages, as proposals: none of it is sent until somebody accepts it. */
import {
  KINDS,
  type Proposal,
  canAccept,
  isSure,
  peopleWithoutLine,
  puts,
  calledOf,
  twinsOf,
} from '@gatepath/core/packet';
import { useMemo } from 'react';
import { Pressable, View } from 'react-native';
import { pageRanges } from '@gatepath/core/checks';
import { count, listWords } from '@gatepath/core/text';
import { DropMenu, MenuItem } from '../../ui/menu';
import { usePalette } from '../../ui/hooks';
import { PartyChip } from '../../ui/party-chip';
import { Button, Card, IconButton, Loading, Note, Trouble } from '../../ui/pieces';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { slotToken } from '../../ui/slot-token';
import { Token } from '../../ui/token';
import { KnownValues } from '../incoming/known-values';
import { useDocumentTools } from './use-document-tools';
import { Either, questionOf } from './either';
import { useDesk, useDeskActs, useOnDesk } from './use-desk';
import { itemAt } from '@gatepath/core/sure';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function PrintedPanel({ onGo }: { onGo?: () => void }) {
  const { accept } = useDeskActs();
  const on = useOnDesk();
  const { ready, isForm } = useDesk((s) => ({ ready: s.ready, isForm: s.setup.what === 'form' }));
  if (!ready) return <Loading what={TEXT.thePages} />;
  const { proposals } = on.view;
  const open = proposals.filter((x) => x.state === 'open' && !x.stranger);
  const matched = open.filter(isSure);
  const strangers = proposals.filter((x) => x.state === 'open' && x.stranger).length;
  const accepted = proposals.filter((x) => x.state === 'accepted').length;
  return (
    <Stack gap={8} testID="printed-panel">
      <Heading>{TEXT.printedPlaces}</Heading>
      {proposals.length === 0 ? (
        <Small>{TEXT.nothingToFillInWas}</Small>
      ) : open.length === 0 ? (
        <Note tone="good" title={TEXT.everyPrintedPlaceIsDecided}>
          {TEXT.acceptedLeftOut(accepted, proposals.filter((x) => x.state === 'passed').length)}
        </Note>
      ) : (
        <Small>
          {TEXT.readNotMarksYet(
            count(open.length, 'place'),
            matched.length,
            isForm ? TEXT.aRoleOfThisForm : TEXT.somebodyInThisPacket,
          )}
        </Small>
      )}
      {matched.length ? (
        <Button kind="main" onPress={() => accept(matched)} testID="accept-all">
          {TEXT.acceptAll(matched.length)}
        </Button>
      ) : null}
      {isForm ? null : <KnownValues on={on} />}
      <Doubtful n={open.filter((x) => canAccept(x) && x.doubtful).length} />
      <AcceptByParty matched={matched} />
      {isForm ? null : <Further />}
      {on.draft.documents.map((d) => {
        const here = open.filter((x) => x.documentId === d.id);
        return here.length ? <OfDocument key={d.id} documentId={d.id} places={here} onGo={onGo} /> : null;
      })}
      {strangers ? <Small>{TEXT.forPeopleWhoAreNot(count(strangers, TEXT.morePlace))}</Small> : null}
    </Stack>
  );
}

/** A chip for each party that accepts all of its places; none where there is only one party. */
function AcceptByParty({ matched }: { matched: Proposal[] }) {
  const { accept } = useDeskActs();
  const parties = useDesk((s) => s.draft.parties);
  if (!matched.length || parties.length < 2) return null;
  return (
    <Row gap={8} align="stretch" wrap>
      {parties.map((party) => {
        const mine = matched.filter((x) => x.partyId === party.id);
        return mine.length ? (
          <PartyChip
            key={party.id}
            name={party.name}
            letters={slotToken(party)}
            ink={party.ink}
            words={`${calledOf(party)}, ${mine.length}`}
            label={TEXT.acceptAllPlaces(mine.length, party.name)}
            testID={`accept-party-${calledOf(party)}`}
            onPress={() => accept(mine)}
          />
        ) : null;
      })}
    </Row>
  );
}

/**
 * People for whom a paper has neither a line nor space beside the printed ones: a page for their signatures is
 * offered.
 */
function Further() {
  const tools = useDocumentTools();
  const { documents, proposals, marks } = useDesk((s) => s.view);
  const parties = useDesk((s) => s.draft.parties);
  // A long packet has thousands of places: they are computed again when they or the people change.
  const left = useMemo(
    () =>
      documents.flatMap((doc) => {
        const people = peopleWithoutLine({ parties }, doc, proposals, marks);
        return people.length ? [{ doc, people }] : [];
      }),
    [documents, proposals, marks, parties],
  );
  return (
    <>
      {tools.error ? <Trouble error={tools.error} /> : null}
      {left.map(({ doc, people }) => (
        <Note
          key={doc.id}
          tone="warn"
          title={TEXT.hasNoLine(doc.name, listWords(people.map(calledOf)))}
          testID="further"
          action={
            <Button busy={tools.busy} onPress={() => void tools.addFurther(doc.id, people)} fit testID="add-further">
              {TEXT.addAPageForTheir}
            </Button>
          }
        />
      ))}
    </>
  );
}

/** What "accept all" leaves out. */
function Doubtful({ n }: { n: number }) {
  if (!n) return null;
  return <Note tone="warn" title={TEXT.uncertainCheckEach(count(n, 'place'), n)} testID="doubtful" />;
}

/** Number of places without a name that are listed; the rest is only counted. */
const SHOWN = 10;

/**
 * Returns places in groups that are decided on together: those of one person and one kind, and uncertain ones with those at
 * the same spot of other pages.
 */
function groupsOf(places: Proposal[]): Proposal[][] {
  const groups = new Map<string, Proposal[]>();
  const grouped = new Set<Proposal>();
  for (const x of places) {
    if (grouped.has(x)) continue;
    const key = `${x.partyId}:${x.kind}:${x.beside ? 'beside' : ''}${x.doubtful ? x.id : ''}`;
    const together = twinsOf(x, places).filter((o) => !grouped.has(o));
    for (const o of together) grouped.add(o);
    groups.set(key, [...(groups.get(key) ?? []), ...together]);
  }
  return [...groups.values()];
}

function OfDocument({
  documentId,
  places,
  onGo,
}: {
  documentId: string;
  places: Proposal[];
  onGo: (() => void) | undefined;
}) {
  const { accept, dismiss } = useDeskActs();
  const parties = useDesk((s) => s.draft.parties);
  const name = useDesk((s) => s.view.documents.find((d) => d.id === documentId)?.name ?? TEXT.document);
  const matched = places.filter(canAccept);
  const sure = places.filter(isSure);
  const nameless = places.filter((x) => !x.partyId);
  return (
    <Card style={{ padding: 12 }}>
      <Row>
        <Stack grow>
          <Strong>{name}</Strong>
          <Small>{TEXT.open(count(places.length, 'place'))}</Small>
        </Stack>
        <DropMenu anchor={(open) => <IconButton name="more" label={TEXT.whatToDo(name)} onPress={open} />}>
          {sure.length ? <MenuItem title={TEXT.acceptHere(sure.length)} onPress={() => accept(sure)} /> : null}
          <MenuItem title={TEXT.dismissAllOfThem} onPress={() => dismiss(places)} />
          {nameless.length
            ? parties
                .filter(puts)
                .map((x) => (
                  <MenuItem
                    key={x.id}
                    title={TEXT.giveWithoutAName(nameless.length, calledOf(x))}
                    onPress={() => accept(nameless, { partyId: x.id })}
                  />
                ))
            : null}
          <MenuItem title={TEXT.dismissThoseWithoutAName} onPress={() => dismiss(nameless)} />
        </DropMenu>
      </Row>
      {groupsOf(matched).map((g) => (
        <PlaceRow key={itemAt(g, 0).id} places={g} onGo={onGo} />
      ))}
      {nameless.length ? <Small>{TEXT.withoutANameLeaveThem(count(nameless.length, 'blank'))}</Small> : null}
      {nameless.slice(0, SHOWN).map((x) => (
        <PlaceRow key={x.id} places={[x]} onGo={onGo} />
      ))}
      {nameless.length > SHOWN ? <Small>{TEXT.andMoreOnThePages(nameless.length - SHOWN)}</Small> : null}
    </Card>
  );
}

function PlaceRow({ places, onGo }: { places: Proposal[]; onGo: (() => void) | undefined }) {
  const p = usePalette();
  const { accept, dismiss, pickProposal } = useDeskActs();
  const parties = useDesk((s) => s.draft.parties);
  const place = itemAt(places, 0);
  const party = parties.find((x) => x.id === place.partyId);
  const what = `${KINDS[place.kind].word}, ${pageRanges(places.map((x) => x.page))}`;
  const question = questionOf(parties, place);
  return (
    <>
      <Row gap={8}>
        {party ? (
          <Token name={party.name} letters={slotToken(party)} ink={party.ink} size={24} />
        ) : (
          <View
            style={{
              width: 24,
              height: 24,
              borderRadius: 12,
              borderWidth: 1.5,
              borderStyle: 'dotted',
              borderColor: p.slate,
              alignItems: 'center',
            }}
          >
            <Body tone="plain" style={{ fontSize: 14, lineHeight: 20 }}>
              ?
            </Body>
          </View>
        )}
        <Pressable
          role="button"
          onPress={() => {
            pickProposal(place.id);
            onGo?.();
          }}
          style={{ flex: 1, minHeight: 44, justifyContent: 'center' }}
        >
          <Body style={{ fontSize: 15 }}>{what}</Body>
          {place.doubtful ? (
            <Small tone="warn">{question ?? TEXT.uncertainPlace(place.label ? `: ${place.label}` : '')}</Small>
          ) : place.beside ? (
            <Small>{TEXT.besideThePrintedOnes}</Small>
          ) : place.label ? (
            <Small numberOfLines={1}>{place.label}</Small>
          ) : null}
        </Pressable>
        {canAccept(place) && !question ? (
          <IconButton name="check" label={TEXT.accept(what)} onPress={() => accept(places)} />
        ) : null}
        <IconButton name="close" label={TEXT.leaveOutOf(what)} onPress={() => dismiss(places)} />
      </Row>
      <Either places={places} />
    </>
  );
}
