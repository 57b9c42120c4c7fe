/** The packet as one party will see it, before anything is sent. */
import { Suspense, useState } from 'react';
import { FlatList, View } from 'react-native';
import { Modal } from 'react-native-paper';
import {
  type Draft,
  hasDocument,
  holdsGate,
  type PacketParty,
  isAutomatic,
  isForClient,
  shownWords,
  isSenders,
  puts,
  approves,
  calledOf,
} from '@gatepath/core/packet';
import type { DraftView } from '@gatepath/core/checks';
import { mergeTags } from '@gatepath/core/merge';
import { urlOf } from '@gatepath/contract/paths';
import { count } from '@gatepath/core/text';
import { Rehearsed } from '../../ceremony-place';
import { useAlone, usePalette } from '../../ui/hooks';
import { Button, Choice, IconButton } from '../../ui/pieces';
import { Body, Small, Strong } from '../../ui/text';
import { Fills } from '../pages/fills';
import { AtRect, MarkFace } from '../pages/mark-box';
import { Redlines } from '../pages/redlines';
import { Sheet } from '../pages/sheet';
import { useRehearsal } from '../signing/use-rehearsal';
import { partyInHand } from './desk-state';
import { useDesk } from './use-desk';
import { webStyle } from '../../ui/web';
import { DeskPortal } from './desk-portal';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export function PreviewAs({ onClose }: { onClose: () => void }) {
  const p = usePalette();
  const { draft, view, packetId, inHand } = useDesk((s) => ({
    draft: s.draft,
    view: s.view,
    packetId: s.packet.id,
    inHand: partyInHand(s),
  }));
  const [partyId, setParty] = useState(inHand ?? draft.parties[0]?.id ?? '');
  const [through, setThrough] = useState(false);
  const alone = useAlone();
  const party = draft.parties.find((x) => x.id === partyId);
  if (!party) return null;
  const gate = draft.gates.findIndex((g) => g.partyIds.includes(partyId));
  const rehearses = holdsGate(party) && gate >= 0 && view.documents.some((d) => hasDocument(party, d.id));
  return (
    <DeskPortal>
      <Modal visible onDismiss={onClose} contentContainerStyle={webStyle({ position: 'absolute', inset: 0 })}>
        <View ref={alone} style={{ flex: 1, backgroundColor: p.bench }} testID="preview">
          <Head draft={draft} view={view} party={party} gate={gate} onParty={setParty} onClose={onClose} />
          <Pages draft={draft} view={view} party={party} />
          <Row
            gap={8}
            align="stretch"
            style={{ padding: 10, backgroundColor: p.sheet, borderTopWidth: 1, borderColor: p.rule }}
          >
            <Button onPress={onClose} grow>
              {TEXT.backToTheDesk}
            </Button>
            {rehearses ? (
              <Button kind="main" onPress={() => setThrough(true)} grow testID="go-through">
                {TEXT.rehearseAs(calledOf(party))}
              </Button>
            ) : null}
          </Row>
          {through ? <GoThrough packetId={packetId} party={party} onClose={() => setThrough(false)} /> : null}
        </View>
      </Modal>
    </DeskPortal>
  );
}

interface AsParty {
  draft: Draft;
  view: DraftView;
  party: PacketParty;
}

/** Returns a party's own marks, and the pages of the documents it receives. */
function seenBy({ view, party }: Pick<AsParty, 'view' | 'party'>) {
  const documents = view.documents.filter((d) => hasDocument(party, d.id));
  return {
    pages: documents.flatMap((d) => d.pages.map((size, i) => ({ doc: d, page: i + 1, size }))),
    mine: view.marks.filter((m) => m.partyId === party.id && !isSenders(m.kind)),
  };
}

/** Who sees what, in a sentence, with the choice of another party. */
function Head(o: AsParty & { gate: number; onParty: (id: string) => void; onClose: () => void }) {
  const { draft, view, party, gate } = o;
  const p = usePalette();
  const { pages, mine } = seenBy(o);
  const places = mine.filter((m) => m.required && isForClient(m)).length;
  const words = (text: string) => mergeTags(text, view.tags).text;
  return (
    <Stack gap={8} style={{ backgroundColor: p.sheet, padding: 12, borderBottomWidth: 1, borderColor: p.rule }}>
      <Row gap={8}>
        <Stack grow>
          <Strong style={{ fontSize: 18 }}>{TEXT.asWillSee(calledOf(party))}</Strong>
          <Small>
            {puts(party)
              ? TEXT.toFillOnAtGate(count(places, 'place'), count(pages.length, 'page'), gate + 1)
              : approves(party)
                ? TEXT.readsAndApprovesAtGate(count(pages.length, 'page'), gate + 1)
                : TEXT.getsACopy(count(pages.length, 'page'))}
          </Small>
        </Stack>
        <IconButton name="close" label={TEXT.backToTheDesk} onPress={o.onClose} testID="preview-close" />
      </Row>
      {draft.parties.length > 1 ? (
        <Choice
          wrap
          label={TEXT.whoseView}
          value={party.id}
          options={draft.parties.map((x) => ({ value: x.id, label: calledOf(x) }))}
          onChange={o.onParty}
        />
      ) : null}
      <Small numberOfLines={2}>
        {TEXT.subjectOf(words(draft.subject), draft.message ? `. ${words(draft.message)}` : '')}
      </Small>
    </Stack>
  );
}

/** The pages with the sender's own text and the places of the party; what others will fill is not shown. */
function Pages({ draft, view, party }: AsParty) {
  const [width, setWidth] = useState(0);
  const { pages, mine } = seenBy({ view, party });
  const words = (text: string) => mergeTags(text, view.tags).text;
  const written = view.marks.flatMap((m) => shownWords(m, words));
  const places = mine.filter((m) => isForClient(m) || isAutomatic(m.kind));
  const pageOf = ({ doc, page, size }: (typeof pages)[number]) => {
    const scale = width / size.width;
    const here = <T extends { documentId: string; page: number }>(all: T[]) =>
      all.filter((x) => x.documentId === doc.id && x.page === page);
    return (
      <Stack gap={4}>
        {page === 1 ? <Strong>{doc.name}</Strong> : null}
        <Sheet
          page={size}
          width={width}
          url={urlOf('documentPage', { documentId: doc.id, page })}
          label={TEXT.pageOfOf(page, doc.name)}
        >
          <Redlines page={size} scale={scale} redlines={here(draft.redlines)} />
          <Fills page={size} scale={scale} fills={here(written)} pictureUrl={() => ''} />
          {here(places).map((m) => (
            <AtRect key={m.id} rect={m.rect} scale={scale}>
              <MarkFace
                rect={m.rect}
                scale={scale}
                kind={m.kind}
                ink={party.ink}
                required={m.required}
                text={m.value && m.kind !== 'choice' ? words(m.value) : undefined}
              />
            </AtRect>
          ))}
        </Sheet>
        <Small center>{TEXT.pageOfCount(page, doc.pages.length)}</Small>
      </Stack>
    );
  };
  return (
    <Stack grow onLayout={(e) => setWidth(Math.min(720, e.nativeEvent.layout.width - 20))}>
      {width > 0 ? (
        <FlatList
          data={pages}
          keyExtractor={(x) => `${x.doc.id}:${x.page}`}
          contentContainerStyle={{ alignItems: 'center', gap: 14, paddingVertical: 14 }}
          initialNumToRender={2}
          windowSize={3}
          ListEmptyComponent={<Body style={{ padding: 24 }}>{TEXT.noDocumentOfThisPacket}</Body>}
          renderItem={({ item }) => pageOf(item)}
        />
      ) : null}
    </Stack>
  );
}

/** The person's whole ceremony, with nothing sent. */
function GoThrough({ packetId, party, onClose }: { packetId: string; party: PacketParty; onClose: () => void }) {
  const p = usePalette();
  const alone = useAlone();
  const signing = useRehearsal(packetId, party.id);
  return (
    <View ref={alone} style={webStyle({ position: 'absolute', inset: 0, backgroundColor: p.paper })} testID="rehearsal">
      <Row
        gap={8}
        style={{ backgroundColor: p.bench, paddingHorizontal: 12, borderBottomWidth: 1, borderColor: p.rule }}
      >
        <Small tone="ink" grow>
          {TEXT.youAreRehearsingAsNothing(calledOf(party))}
        </Small>
        <IconButton name="close" label={TEXT.endTheRehearsal} onPress={onClose} testID="rehearsal-close" />
      </Row>
      <Stack grow>
        <Suspense fallback={null}>
          <Rehearsed signing={signing} />
        </Suspense>
      </Stack>
    </View>
  );
}
