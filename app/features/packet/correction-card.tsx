/** A change on a page of a packet that is on its way: words struck, or words put in. */
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useQuery } from '@tanstack/react-query';
import { pathOf, unpackFacts, type PacketView, type SentView } from '@gatepath/contract';
import { findWords, roomForWords, type Rect, type Redline } from '@gatepath/core/marks';
import { doneWords } from '@gatepath/core/text';
import { factsQuery, usePacketActions } from '../../api/hooks';
import { DoOrLeave } from '../../ui/do-or-leave';
import { Input } from '../../ui/input';
import { Card, Choice, Note } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import { Fills } from '../pages/fills';
import { Redlines } from '../pages/redlines';
import { Sheet } from '../pages/sheet';

interface Props {
  packet: PacketView;
  sent: SentView;
  look: { documentId: string; page: number };
  onClose: () => void;
}

export function CorrectionCard({ packet, sent, look, onClose }: Props) {
  const { change } = usePacketActions(packet.id);
  const facts = useQuery(factsQuery(look.documentId));
  const [kind, setKind] = useState<Redline['kind']>('strike');
  const [words, setWords] = useState('');
  const [after, setAfter] = useState('');
  const [width, setWidth] = useState(0);
  const doc = sent.plan.documents.find((d) => d.id === look.documentId)!;
  const size = doc.pages[look.page - 1]!;
  const page = useMemo(
    () => (facts.data ? unpackFacts(doc.id, doc.name, facts.data).pages[look.page - 1] : undefined),
    [doc, facts.data, look.page],
  );
  const obstacles = [
    ...sent.plan.marks.filter((m) => m.documentId === doc.id && m.page === look.page).map((m) => m.rect),
    ...sent.redlines.filter((r) => r.documentId === doc.id && r.page === look.page).flatMap((r) => r.rects),
  ];
  const found = page && kind === 'strike' && words.trim() ? findWords(page, words) : [];
  const near = page && kind === 'insert' && after.trim() ? findWords(page, after)[0] : undefined;
  const place: { rects: Rect[]; text: string } | null =
    kind === 'strike' ? (found[0] ?? null) : page && words.trim() ? roomFor(page, words, near?.rects, obstacles) : null;
  const signers = sent.parties.filter((s) => s.status === 'done').length;
  const redline: Redline | null = place && {
    id: 'shown',
    documentId: doc.id,
    page: look.page,
    kind,
    rects: place.rects,
    text: place.text,
    moved: [],
  };
  const send = () =>
    redline &&
    change.mutate(
      { type: 'correct', documentId: doc.id, page: look.page, kind, text: redline.text, rects: redline.rects },
      { onSuccess: onClose },
    );
  return (
    <Card testID="correction">
      <Heading>{`Change page ${look.page} of ${doc.name}`}</Heading>
      <Body>
        {signers
          ? `${doneWords(signers)} will be asked to initial it; everyone ahead sees it. What was signed stays as it is.`
          : 'Everyone who signs this document is asked to initial it.'}
      </Body>
      <Choice
        wrap
        label="What to change"
        value={kind}
        options={[
          { value: 'strike', label: 'Strike words' },
          { value: 'insert', label: 'Put words in' },
        ]}
        onChange={setKind}
      />
      <Input
        label={kind === 'strike' ? 'The words to strike, as printed' : 'The words to put in'}
        value={words}
        onChangeText={setWords}
        multiline={kind === 'insert'}
        testID="change-words"
      />
      {kind === 'insert' ? (
        <Input
          label="Near these printed words (leave empty for any free place)"
          value={after}
          onChangeText={setAfter}
          testID="change-near"
        />
      ) : null}
      {words.trim() && !place ? (
        <Note
          tone="warn"
          title={
            !page
              ? 'The page is still being looked at.'
              : kind === 'strike'
                ? 'These words are not printed on this page. Write them as they stand there.'
                : 'There is no room for these words on this page. Write fewer.'
          }
        />
      ) : null}
      {found.length > 1 ? (
        <Small>{`They stand here ${found.length} times; the first is struck. Add a word to choose.`}</Small>
      ) : null}
      <View onLayout={(e) => setWidth(e.nativeEvent.layout.width)}>
        {width > 0 && redline ? (
          <Sheet
            page={size}
            width={width}
            url={pathOf('documentPage', { documentId: doc.id, page: look.page })}
            label={`Page ${look.page} of ${doc.name} with the change`}
          >
            <Redlines page={size} scale={width / size.width} redlines={[...here(sent.redlines, look), redline]} />
            <Fills
              page={size}
              scale={width / size.width}
              fills={here(sent.fills, look)}
              pictureUrl={(sha256) => pathOf('packetPicture', { packetId: packet.id, sha256 })}
            />
          </Sheet>
        ) : null}
      </View>
      <DoOrLeave
        label="Make the change"
        busy={change.isPending}
        disabled={!redline}
        error={change.error}
        onDo={send}
        onLeave={onClose}
        testID="change-now"
      />
    </Card>
  );
}

const here = <T extends { documentId: string; page: number }>(all: T[], look: { documentId: string; page: number }) =>
  all.filter((x) => x.documentId === look.documentId && x.page === look.page);

function roomFor(
  page: Parameters<typeof roomForWords>[0],
  words: string,
  near: Rect[] | undefined,
  obstacles: Rect[],
): { rects: Rect[]; text: string } | null {
  const last = near?.[near.length - 1];
  const at = last ? { x: last.x + last.w + 4, y: last.y } : { x: 72, y: page.height * 0.6 };
  const rect = roomForWords(page, words, at, obstacles);
  return rect && { rects: [rect], text: words.trim() };
}
