/** The packet as one party will see it, before anything is sent. */
import { Suspense, useState } from 'react';
import { FlatList, View } from 'react-native';
import { Modal, Portal } from 'react-native-paper';
import {
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
import { mergeTags } from '@gatepath/core/merge';
import { urlOf } from '@gatepath/contract/paths';
import { count } from '@gatepath/core/text';
import { Rehearsal } from '../../ceremony-place';
import { useAlone, usePalette } from '../../ui/hooks';
import { Button, Choice, IconButton } from '../../ui/pieces';
import { Body, Small, Strong } from '../../ui/text';
import { Fills } from '../pages/fills';
import { AtRect, MarkFace } from '../pages/mark-box';
import { Redlines } from '../pages/redlines';
import { Sheet } from '../pages/sheet';
import type { Desk } from './use-desk';
import { webStyle } from '../../ui/web';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function PreviewAs({ desk, onClose }: { desk: Desk; onClose: () => void }) {
  const p = usePalette();
  const { draft, view } = desk;
  const [partyId, setParty] = useState(desk.partyId ?? draft.parties[0]?.id ?? '');
  const [width, setWidth] = useState(0);
  const [through, setThrough] = useState(false);
  const alone = useAlone();
  const party = draft.parties.find((x) => x.id === partyId);
  if (!party) return null;
  const documents = view.documents.filter((d) => hasDocument(party, d.id));
  const pages = documents.flatMap((d) => d.pages.map((size, i) => ({ doc: d, page: i + 1, size })));
  const mine = view.marks.filter((m) => m.partyId === partyId && !isSenders(m.kind));
  const places = mine.filter((m) => m.required && isForClient(m)).length;
  const gate = draft.gates.findIndex((g) => g.partyIds.includes(partyId));
  // The sender's own text is shown; what others will fill is not.
  const words = (text: string) => mergeTags(text, view.tags).text;
  const written = view.marks.flatMap((m) => shownWords(m, words));
  return (
    <Portal>
      <Modal visible onDismiss={onClose} contentContainerStyle={webStyle({ position: 'absolute', inset: 0 })}>
        <View ref={alone} style={{ flex: 1, backgroundColor: p.bench }} testID="preview">
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
              <IconButton name="close" label={TEXT.backToTheDesk} onPress={onClose} testID="preview-close" />
            </Row>
            {draft.parties.length > 1 ? (
              <Choice
                wrap
                label={TEXT.whoseView}
                value={partyId}
                options={draft.parties.map((x) => ({ value: x.id, label: calledOf(x) }))}
                onChange={setParty}
              />
            ) : null}
            <Small numberOfLines={2}>
              {TEXT.subjectOf(words(draft.subject), draft.message ? `. ${words(draft.message)}` : '')}
            </Small>
          </Stack>
          <Stack grow onLayout={(e) => setWidth(Math.min(720, e.nativeEvent.layout.width - 20))}>
            {width > 0 ? (
              <FlatList
                data={pages}
                keyExtractor={(x) => `${x.doc.id}:${x.page}`}
                contentContainerStyle={{ alignItems: 'center', gap: 14, paddingVertical: 14 }}
                initialNumToRender={2}
                windowSize={3}
                ListEmptyComponent={<Body style={{ padding: 24 }}>{TEXT.noDocumentOfThisPacket}</Body>}
                renderItem={({ item }) => {
                  const scale = width / item.size.width;
                  const here = <T extends { documentId: string; page: number }>(all: T[]) =>
                    all.filter((x) => x.documentId === item.doc.id && x.page === item.page);
                  return (
                    <Stack gap={4}>
                      {item.page === 1 ? <Strong>{item.doc.name}</Strong> : null}
                      <Sheet
                        page={item.size}
                        width={width}
                        url={urlOf('documentPage', { documentId: item.doc.id, page: item.page })}
                        label={TEXT.pageOfOf(item.page, item.doc.name)}
                      >
                        <Redlines page={item.size} scale={scale} redlines={here(draft.redlines)} />
                        <Fills page={item.size} scale={scale} fills={here(written)} pictureUrl={() => ''} />
                        {here(mine)
                          .filter((m) => isForClient(m) || isAutomatic(m.kind))
                          .map((m) => (
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
                      <Small center>{TEXT.pageOf2(item.page, item.doc.pages.length)}</Small>
                    </Stack>
                  );
                }}
              />
            ) : null}
          </Stack>
          <Row
            gap={8}
            align="stretch"
            style={{ padding: 10, backgroundColor: p.sheet, borderTopWidth: 1, borderColor: p.rule }}
          >
            <Button onPress={onClose} grow>
              {TEXT.backToTheDesk}
            </Button>
            {holdsGate(party) && gate >= 0 && documents.length ? (
              <Button kind="main" onPress={() => setThrough(true)} grow testID="go-through">
                {TEXT.rehearseAs(calledOf(party))}
              </Button>
            ) : null}
          </Row>
          {through ? <GoThrough packetId={desk.packet.id} party={party} onClose={() => setThrough(false)} /> : null}
        </View>
      </Modal>
    </Portal>
  );
}

/** The person's whole ceremony, with nothing sent. */
function GoThrough({ packetId, party, onClose }: { packetId: string; party: PacketParty; onClose: () => void }) {
  const p = usePalette();
  const alone = useAlone();
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
          <Rehearsal packetId={packetId} partyId={party.id} />
        </Suspense>
      </Stack>
    </View>
  );
}
