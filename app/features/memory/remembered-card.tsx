/** An offer to place what a document had on it the last time it was sent. */
import { router } from 'expo-router';
import { useEffect, useState } from 'react';
import { dayOf, shortDay } from '@gatepath/core/calendar';
import { editsOfRecalled } from '@gatepath/core/memory';
import type { Draft, DraftEdit, Mark } from '@gatepath/core/packet';
import type { DocumentView, PacketView, RememberedView } from '@gatepath/contract';
import { useStopOffering, useRemembered } from '../../api/memory-hooks';
import { useNewOnShelf } from '../../api/shelf-hooks';
import { Row } from '../../ui/layout';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, Card, IconButton, Note, Trouble } from '../../ui/pieces';
import { Heading, Small } from '../../ui/text';
import { FoundPlaces, toReview } from './found-places';
import { TEXT } from './words';

type Remembered = NonNullable<RememberedView['remembered']>;

/** What the card needs of the desk. */
interface On {
  packet: PacketView;
  draft: Draft;
  edit: (edits: DraftEdit[]) => void;
  version: number;
}

/** The version of a draft that nobody has changed yet. */
const UNTOUCHED = 1;

/** A paper that was sent this many times is offered for the shelf. */
const OFTEN = 3;

interface CardsProps {
  on: On;
  only?: string;
  isShort?: boolean;
  onSend?: (() => void) | undefined;
}

/**
 * Shows an offer for each document of a draft that was sent before and has nothing on it yet, and what was placed.
 *
 * @param onSend opens the send dialog after the marks are placed
 * @param only shows the card of this document alone
 * @param isShort leaves out what goes without saying: on a phone the page needs the room
 */
export function RememberedCards({ on, only, isShort = false, onSend }: CardsProps) {
  const { draft, packet } = on;
  return draft.documents.map(({ id, byHand }) => {
    const document = packet.documents.find((d) => d.id === id);
    return document?.status === 'ready' && !byHand ? (
      <RememberedCard
        key={id}
        on={on}
        onSend={onSend}
        isShort={isShort}
        isHidden={only !== undefined && id !== only}
        document={document}
      />
    ) : null;
  });
}

interface Placed {
  /** Whether it was placed without being asked for. */
  atOnce: boolean;
  marks: number;
  /** How often the document was sent; 0 for a form. */
  times: number;
  /** The edits that remove these marks, rules and dismissed places again. */
  back: DraftEdit[];
}

interface CardProps {
  on: On;
  onSend: (() => void) | undefined;
  isShort: boolean;
  /** Not shown now; what is placed at once is placed all the same. */
  isHidden: boolean;
  document: DocumentView;
}

function RememberedCard({ on, onSend, isShort, isHidden, document }: CardProps) {
  const { draft, edit } = on;
  const [placed, setPlaced] = useState<Placed | null>(null);
  const [dismissed, setDismissed] = useState(false);
  // What somebody has changed is not added to unasked.
  const [untouched] = useState(on.version === UNTOUCHED);
  const isEmpty = ![...draft.marks, ...draft.rules].some((m) => m.documentId === document.id);
  if (placed && !isEmpty)
    return isHidden ? null : (
      <PlacedNote
        on={on}
        document={document}
        placed={placed}
        onRemove={() => {
          edit(placed.back);
          setPlaced(null);
          setDismissed(placed.atOnce);
        }}
      />
    );
  if (!isEmpty || dismissed) return null;
  return (
    <Offer
      on={on}
      onSend={onSend}
      isShort={isShort}
      isHidden={isHidden}
      document={document}
      onDismiss={() => setDismissed(true)}
      mayPlace={untouched}
      onPlace={(remembered, atOnce) => {
        // Several papers may be placed at once, and only one of them could set the order of acts.
        const edits = editsOfRecalled(draft, atOnce ? { ...remembered, gates: null } : remembered);
        edit(edits);
        setPlaced({
          atOnce,
          marks: remembered.marks.length,
          times: remembered.from.kind === 'packet' ? remembered.times : 0,
          back: edits.flatMap((e): DraftEdit[] =>
            e.op === 'put' && e.list !== 'gates' ? [{ op: 'drop', list: e.list, id: e.item.id }] : [],
          ),
        });
      }}
    />
  );
}

interface OfferProps extends CardProps {
  /** Whether it may be placed at once, if the firm has chosen so. */
  mayPlace: boolean;
  onPlace: (remembered: Remembered, atOnce: boolean) => void;
  onDismiss: () => void;
}

function Offer({ on, onSend, isShort, isHidden, document, mayPlace, onPlace, onDismiss }: OfferProps) {
  const { packet, draft } = on;
  const { name } = document;
  const people = draft.parties.map((p) => `${p.id}/${p.side}/${p.ordinal}/${p.act}`).join();
  const { data } = useRemembered(packet.id, document.id, people);
  const stop = useStopOffering(packet.id, document.id);
  const chosen = useChosen(data?.remembered);
  const remembered = data?.remembered;
  const atOnce = !!remembered && !!data?.atOnce && mayPlace && isCertain(remembered);
  useEffect(() => {
    if (atOnce) onPlace(remembered, true);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when it is known
  }, [atOnce]);
  if (atOnce || isHidden || !remembered) return null;
  const { marks, doubtful, rules } = remembered;
  if (!(marks.length + doubtful.length + rules.length)) return null;
  return (
    <Card style={{ padding: 12 }} testID="remembered">
      <Row>
        <Heading grow>{headingOf(remembered)}</Heading>
        <DropMenu
          anchor={(open) => <IconButton name="more" label={TEXT.more(name)} onPress={open} testID="more-remembered" />}
        >
          <MenuItem title={TEXT.stopOffering} onPress={() => stop.mutate()} testID="stop-offering" />
        </DropMenu>
      </Row>
      <Small>{relationWords(name, remembered, packet.timeZone)}</Small>
      {sentencesOf(remembered, draft, !isShort).map((sentence) => (
        <Small key={sentence}>{sentence}</Small>
      ))}
      <ToReview remembered={remembered} {...{ document, draft, isShort, chosen }} />
      {stop.error ? <Trouble error={stop.error} /> : null}
      <OfferActs
        remembered={{ ...remembered, marks: chosen.marks }}
        mayBeSent={isCertain(remembered)}
        {...{ onSend, onPlace, onDismiss }}
      />
    </Card>
  );
}

interface OfferActsProps extends Pick<OfferProps, 'onSend' | 'onPlace' | 'onDismiss'> {
  /** With the marks that are to be placed. */
  remembered: Remembered;
  mayBeSent: boolean;
}

function OfferActs({ remembered, mayBeSent, onSend, onPlace, onDismiss }: OfferActsProps) {
  const { marks, rules } = remembered;
  return (
    <Row gap={8} align="stretch" wrap>
      {marks.length + rules.length ? (
        <Button kind="main" onPress={() => onPlace(remembered, false)} testID="place-remembered">
          {TEXT.place(marks.length, rules.length)}
        </Button>
      ) : null}
      {onSend && mayBeSent ? (
        <Button
          onPress={() => {
            onPlace(remembered, false);
            onSend();
          }}
          fit
          testID="place-and-send"
        >
          {TEXT.placeAndSend}
        </Button>
      ) : null}
      <Button kind="quiet" onPress={onDismiss} fit testID="not-remembered">
        {TEXT.notNow}
      </Button>
    </Row>
  );
}

/** Returns the marks that are placed: at first those found for certain, until a member turns one on or off. */
function useChosen(remembered: Remembered | null | undefined) {
  const [turned, setTurned] = useState<Record<string, boolean>>({});
  const uncertain = new Set(remembered?.doubtful.map((m) => m.id));
  const isOn = (m: Mark) => turned[m.id] ?? !uncertain.has(m.id);
  return {
    isOn,
    onTurn: (m: Mark, on: boolean) => setTurned((was) => ({ ...was, [m.id]: on })),
    marks: [...(remembered?.marks ?? []), ...(remembered?.doubtful ?? [])].filter(isOn),
  };
}

interface ToReviewProps {
  remembered: Remembered;
  document: DocumentView;
  draft: Draft;
  isShort: boolean;
  chosen: ReturnType<typeof useChosen>;
}

/** A button that shows the marks to review; nothing if there are none. */
function ToReview({ remembered, document, draft, isShort, chosen }: ToReviewProps) {
  const [open, setOpen] = useState(false);
  const { uncertain, moved } = toReview(remembered);
  if (!(uncertain.length + moved.length)) return null;
  return (
    <>
      <Button kind="quiet" onPress={() => setOpen(!open)} fit testID="review-places">
        {open ? TEXT.hide : TEXT.review(uncertain.length, moved.length)}
      </Button>
      {open ? (
        <FoundPlaces
          remembered={remembered}
          document={document}
          draft={draft}
          isShort={isShort}
          isOn={chosen.isOn}
          onTurn={chosen.onTurn}
        />
      ) : null}
    </>
  );
}

/** Returns whether the paper is the same and everything on it was found again, for somebody. */
const isCertain = ({ kind, uncertain, lost, unfilled, marks }: Remembered) =>
  (kind === 'identical' || kind === 'filled') && marks.length > 0 && uncertain + lost + unfilled === 0;

/** Returns what the offer is headed by: only the same paper is called this paper. */
function headingOf({ from, kind }: Remembered): string {
  if (kind === 'edition') return from.kind === 'form' ? TEXT.likeAForm : TEXT.sentAlike;
  return from.kind === 'form' ? TEXT.onYourShelf : TEXT.sentBefore;
}

/** Returns what the paper is compared with the earlier one, as a sentence. */
function relationWords(name: string, { from, kind, gone, added, moved }: Remembered, zone: string): string {
  const of = from.sentAt
    ? TEXT.thePaperOf(from.address ?? '', shortDay(dayOf(from.sentAt, zone)), from.executed)
    : TEXT.theForm(from.name);
  if (kind === 'identical') return TEXT.isTheSame(name, of);
  return kind === 'filled' ? TEXT.isFilledIn(name, of) : TEXT.isChanged(name, of, gone, added, moved);
}

/** Returns who becomes whom and what is left out, as sentences; without `all` only what somebody must know. */
function sentencesOf(remembered: Remembered, draft: Draft, all: boolean): string[] {
  const nameOf = (id: string) => draft.parties.find((p) => p.id === id)?.name ?? '';
  const filled = remembered.slots.filter((s) => s.partyIds.length);
  const empty = remembered.slots.filter((s) => !s.partyIds.length).map((s) => s.name);
  return [
    all && filled.length ? `${filled.map((s) => TEXT.becomes(s.name, s.partyIds.map(nameOf))).join('. ')}.` : '',
    remembered.beyond.length ? TEXT.roomFor(remembered.beyond.map(nameOf)) : '',
    remembered.unfilled ? TEXT.nobodyIs(empty, remembered.unfilled) : '',
    remembered.uncertain ? TEXT.uncertain(remembered.uncertain) : '',
    remembered.lost ? TEXT.lost(remembered.lost) : '',
    all && remembered.open ? TEXT.stillOpen(remembered.open) : '',
    all && remembered.from.kind === 'packet' ? TEXT.nothingElse : '',
  ].filter(Boolean);
}

interface PlacedProps extends Pick<CardProps, 'on' | 'document'> {
  placed: Placed;
  onRemove: () => void;
}

function PlacedNote({ on, document: { id: documentId, name }, placed, onRemove }: PlacedProps) {
  const { keep } = useNewOnShelf();
  const often = placed.times >= OFTEN;
  return (
    <Note
      tone="good"
      title={TEXT.placed(placed.marks)}
      testID="remembered-placed"
      action={
        <Row gap={8} align="stretch" wrap>
          <Button onPress={onRemove} fit testID="remove-remembered">
            {TEXT.remove(placed.marks)}
          </Button>
          {often ? (
            <Button
              kind="quiet"
              fit
              busy={keep.isPending}
              onPress={() =>
                keep.mutate(
                  { packetId: on.packet.id, documentId, name },
                  { onSuccess: (item) => router.push(`/forms/${item.id}`) },
                )
              }
              testID="remembered-to-shelf"
            >
              {TEXT.addToShelf}
            </Button>
          ) : null}
        </Row>
      }
    >
      <Small>{TEXT.onPaper(name, placed.marks)}</Small>
      {often ? <Small>{TEXT.sentOften(placed.times)}</Small> : null}
      {keep.error ? <Trouble error={keep.error} /> : null}
    </Note>
  );
}
