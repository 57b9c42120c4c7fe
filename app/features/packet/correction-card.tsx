/** A change on a page of a packet at a gate: words struck, or words inserted. */
import { useMemo, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import type { PacketView, SentView } from '@gatepath/contract';
import { unpackFacts } from '@gatepath/contract/facts';
import { type PickedWords, type Redline, findWords, pickWords, roomForWords } from '@gatepath/core/packet';
import type { PageFacts, Rect } from '@gatepath/core/paper';
import { doneWords } from '@gatepath/core/text';
import { factsQuery, usePacketActions } from '../../api/hooks';
import { DoOrLeave } from '../../ui/do-or-leave';
import { Input } from '../../ui/input';
import { Card, Choice, Note } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import { CorrectionPage } from './correction-page';
import { TEXT } from './words';

interface Props {
  packet: PacketView;
  sent: SentView;
  look: { documentId: string; page: number };
  onClose: () => void;
}

/** Returns the state of a change that is being made: what was typed and tapped, and the redline it results in. */
function useCorrection({ sent, look }: Pick<Props, 'sent' | 'look'>) {
  const facts = useQuery(factsQuery(look.documentId));
  const [kind, setKind] = useState<Redline['kind']>('strike');
  const [words, setWords] = useState('');
  const [after, setAfter] = useState('');
  const [picked, setPicked] = useState<PickedWords | null>(null);
  const [spot, setSpot] = useState<{ x: number; y: number } | null>(null);
  const doc = sent.plan.documents.find((d) => d.id === look.documentId)!;
  const page = useMemo(
    () => (facts.data ? unpackFacts(doc.id, doc.name, facts.data).pages[look.page - 1] : undefined),
    [doc, facts.data, look.page],
  );
  const { found, place } = changeOf({ page, kind, words, after, picked, spot, obstacles: onPage(sent, look) });
  const asRedline = (rects: Rect[], text: string): Redline => ({
    id: 'shown',
    documentId: doc.id,
    page: look.page,
    kind,
    rects,
    text,
    moved: [],
  });
  const redline = place && asRedline(place.rects, place.text);
  return {
    doc,
    page,
    kind,
    words,
    after,
    setAfter,
    picked,
    found,
    redline,
    // A touched spot shows before there are words for it.
    caret: kind === 'insert' && spot && !redline ? asRedline([{ ...spot, w: 24, h: 14 }], '[…]') : null,
    setKind(k: Redline['kind']) {
      setKind(k);
      setPicked(null);
      setWords('');
    },
    setWords(text: string) {
      setPicked(null);
      setWords(text);
    },
    touch(at: { x: number; y: number }) {
      if (!page) return;
      if (kind === 'insert') {
        setSpot(at);
        setAfter('');
        return;
      }
      const next = pickWords(page, picked, at);
      setPicked(next);
      setWords(next?.text ?? '');
    },
  };
}
type Correction = ReturnType<typeof useCorrection>;

/** Returns the rectangles of marks and changes on a page. */
const onPage = (sent: SentView, look: Props['look']): Rect[] => [
  ...sent.plan.marks.filter((m) => m.documentId === look.documentId && m.page === look.page).map((m) => m.rect),
  ...sent.redlines.filter((r) => r.documentId === look.documentId && r.page === look.page).flatMap((r) => r.rects),
];

/** Returns where the words to strike are, and where the change is placed; null if it cannot be. */
function changeOf(o: {
  page: PageFacts | undefined;
  kind: Redline['kind'];
  words: string;
  /** Printed words beside which words are inserted. */
  after: string;
  picked: PickedWords | null;
  spot: { x: number; y: number } | null;
  obstacles: Rect[];
}): { found: { rects: Rect[]; text: string }[]; place: { rects: Rect[]; text: string } | null } {
  const { page, words, picked } = o;
  if (o.kind === 'strike') {
    const found = picked ? [picked] : page && words.trim() ? findWords(page, words) : [];
    return { found, place: found[0] ?? null };
  }
  if (!page || !words.trim()) return { found: [], place: null };
  const named = o.after.trim() ? findWords(page, o.after)[0]?.rects.at(-1) : undefined;
  const near = named ? { x: named.x + named.w + 4, y: named.y } : o.spot;
  return { found: [], place: roomFor(page, words, near, o.obstacles) };
}

export function CorrectionCard({ packet, sent, look, onClose }: Props) {
  const { change } = usePacketActions(packet.id);
  const correction = useCorrection({ sent, look });
  const { doc, kind, picked, redline } = correction;
  const signers = sent.parties.filter((s) => s.status === 'done').length;
  const send = () =>
    redline &&
    change.mutate(
      { type: 'correct', documentId: doc.id, page: look.page, kind, text: redline.text, rects: redline.rects },
      { onSuccess: onClose },
    );
  return (
    <Card testID="correction">
      <Heading>{TEXT.changePage(look.page, doc.name)}</Heading>
      <Body>{signers ? TEXT.willBeAskedToInitial(doneWords(signers)) : TEXT.everyoneWhoSignsThisDocument}</Body>
      <Typed correction={correction} />
      <DoOrLeave
        label={TEXT.makeTheChange}
        busy={change.isPending}
        disabled={!redline}
        error={change.error}
        onDo={send}
        onLeave={onClose}
        testID="change-now"
      />
      <CorrectionPage
        packet={packet}
        sent={sent}
        look={look}
        redline={redline ?? correction.caret}
        hint={
          kind === 'strike'
            ? picked && !picked.both
              ? TEXT.nowTapItsLastWord
              : TEXT.tapTheFirstWord
            : TEXT.tapWhereTheWordsBelong
        }
        onTouch={correction.touch}
      />
    </Card>
  );
}

/** What to change, by typing, and what is wrong with it. */
function Typed({ correction: c }: { correction: Correction }) {
  const { kind, words, found } = c;
  return (
    <>
      <Choice
        wrap
        label={TEXT.whatToChange}
        value={kind}
        options={[
          { value: 'strike', label: TEXT.strikeWords },
          { value: 'insert', label: TEXT.putWords },
        ]}
        onChange={c.setKind}
      />
      <Input
        label={kind === 'strike' ? TEXT.theWordsToStrikeAs : TEXT.theWordsToPut}
        value={words}
        onChangeText={c.setWords}
        multiline={kind === 'insert'}
        testID="change-words"
      />
      {kind === 'insert' ? (
        <Input label={TEXT.orBesideThesePrintedWords} value={c.after} onChangeText={c.setAfter} testID="change-near" />
      ) : null}
      {words.trim() && !c.redline ? (
        <Note
          tone="warn"
          title={
            !c.page ? TEXT.thePageIsStillBeing : kind === 'strike' ? TEXT.theseWordsAreNotPrinted : TEXT.thereIsNoRoom
          }
        />
      ) : null}
      {found.length > 1 ? <Small>{TEXT.theyAppearTheFirstIs(found.length)}</Small> : null}
    </>
  );
}

function roomFor(
  page: PageFacts,
  words: string,
  near: { x: number; y: number } | null,
  obstacles: Rect[],
): { rects: Rect[]; text: string } | null {
  const rect = roomForWords(page, words, near ?? { x: 72, y: page.height * 0.6 }, obstacles);
  return rect && { rects: [rect], text: words.trim() };
}
