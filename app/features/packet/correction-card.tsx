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

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function CorrectionCard({ packet, sent, look, onClose }: Props) {
  const { change } = usePacketActions(packet.id);
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
  const obstacles = [
    ...sent.plan.marks.filter((m) => m.documentId === doc.id && m.page === look.page).map((m) => m.rect),
    ...sent.redlines.filter((r) => r.documentId === doc.id && r.page === look.page).flatMap((r) => r.rects),
  ];
  const found = picked ? [picked] : page && kind === 'strike' && words.trim() ? findWords(page, words) : [];
  const named = page && kind === 'insert' && after.trim() ? findWords(page, after)[0]?.rects.at(-1) : undefined;
  const near = named ? { x: named.x + named.w + 4, y: named.y } : spot;
  const place: { rects: Rect[]; text: string } | null =
    kind === 'strike' ? (found[0] ?? null) : page && words.trim() ? roomFor(page, words, near, obstacles) : null;
  const signers = sent.parties.filter((s) => s.status === 'done').length;
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
  // A touched spot shows before there are words for it.
  const caret = kind === 'insert' && spot && !redline ? asRedline([{ ...spot, w: 24, h: 14 }], '[…]') : null;
  const touch = (at: { x: number; y: number }) => {
    if (!page) return;
    if (kind === 'insert') {
      setSpot(at);
      setAfter('');
      return;
    }
    const next = pickWords(page, picked, at);
    setPicked(next);
    setWords(next?.text ?? '');
  };
  const send = () =>
    redline &&
    change.mutate(
      { type: 'correct', documentId: doc.id, page: look.page, kind, text: redline.text, rects: redline.rects },
      { onSuccess: onClose },
    );
  return (
    <Card testID="correction">
      <Heading>{TEXT.changePage(look.page, doc.name)}</Heading>
      <Body>
        {signers
          ? `${doneWords(signers)} will be asked to initial it; everyone ahead sees it. What was signed stays as it is.`
          : TEXT.everyoneWhoSignsThisDocument}
      </Body>
      <Choice
        wrap
        label={TEXT.whatToChange}
        value={kind}
        options={[
          { value: 'strike', label: TEXT.strikeWords },
          { value: 'insert', label: TEXT.putWords },
        ]}
        onChange={(k) => {
          setKind(k);
          setPicked(null);
          setWords('');
        }}
      />
      <Input
        label={kind === 'strike' ? TEXT.theWordsToStrikeAs : TEXT.theWordsToPut}
        value={words}
        onChangeText={(text) => {
          setPicked(null);
          setWords(text);
        }}
        multiline={kind === 'insert'}
        testID="change-words"
      />
      {kind === 'insert' ? (
        <Input label={TEXT.orBesideThesePrintedWords} value={after} onChangeText={setAfter} testID="change-near" />
      ) : null}
      {words.trim() && !place ? (
        <Note
          tone="warn"
          title={
            !page ? TEXT.thePageIsStillBeing : kind === 'strike' ? TEXT.theseWordsAreNotPrinted : TEXT.thereIsNoRoom
          }
        />
      ) : null}
      {found.length > 1 ? (
        <Small>{`They appear ${found.length} times; the first is struck. Add a word to choose another.`}</Small>
      ) : null}
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
        redline={redline ?? caret}
        hint={
          kind === 'strike'
            ? picked && !picked.both
              ? TEXT.nowTapItsLastWord
              : TEXT.tapTheFirstWord
            : TEXT.tapThePageWhere
        }
        onTouch={touch}
      />
    </Card>
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
