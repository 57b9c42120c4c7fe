/** All pages as thumbnails: to go to one, and to leave out, turn, reorder or split pages of a document. */
import { useState } from 'react';
import { FlatList, Image, Pressable, View } from 'react-native';
import { Modal } from 'react-native-paper';
import { urlOf } from '@gatepath/contract/paths';
import { isSenders } from '@gatepath/core/packet';
import type { DocumentFacts } from '@gatepath/core/packet';
import { itemAt } from '@gatepath/core/sure';
import { count } from '@gatepath/core/text';
import { usePalette, useWide } from '../../ui/hooks';
import { Button, IconButton, Note, Trouble } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { webStyle } from '../../ui/web';
import { positionOf } from './desk-state';
import { useDesk, useDeskActs } from './use-desk';
import { useDocumentTools } from './use-document-tools';
import { type Slot, turned, usePageSlots } from './use-page-slots';
import { DeskPortal } from './desk-portal';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

const THUMB = 96;

type Slots = ReturnType<typeof usePageSlots>;

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function PagesSheet({ onClose }: { onClose: () => void }) {
  const { goTo } = useDeskActs();
  const documents = useDesk((s) => s.view.documents);
  const at = useDesk(positionOf);
  const p = usePalette();
  const columns = useWide() ? 8 : 3;
  const tools = useDocumentTools();
  const [documentId, setDocument] = useState(at?.documentId ?? documents[0]?.id ?? '');
  const doc = documents.find((d) => d.id === documentId) ?? documents[0];
  const pages = usePageSlots(doc, tools, onClose);
  const [editing, setEditing] = useState(false);
  if (!doc) return null;
  return (
    <DeskPortal>
      <Modal visible onDismiss={onClose} contentContainerStyle={webStyle({ position: 'absolute', inset: 0 })}>
        <View style={{ flex: 1, backgroundColor: p.paper }} testID="pages-sheet">
          <Row gap={8} style={{ padding: 10, backgroundColor: p.sheet }}>
            <OtherDocument documents={documents} of={doc} by={-1} onGo={setDocument} />
            <Stack grow>
              <Strong numberOfLines={1}>{doc.name}</Strong>
              <Small>{count(pages.left.length, 'page')}</Small>
            </Stack>
            <OtherDocument documents={documents} of={doc} by={1} onGo={setDocument} />
            <Button kind="quiet" onPress={() => setEditing((x) => !x)} testID="change-pages">
              {editing ? TEXT.viewOnly : TEXT.changePages}
            </Button>
            <IconButton name="close" label={TEXT.backToTheDesk} onPress={onClose} testID="pages-close" />
          </Row>
          {tools.error ? (
            <View style={{ padding: 10 }}>
              <Trouble error={tools.error} />
            </View>
          ) : null}
          <FlatList
            key={columns}
            data={pages.slots}
            numColumns={columns}
            keyExtractor={(s) => `${doc.id}:${s.page}`}
            contentContainerStyle={{ padding: 10, gap: 12 }}
            columnWrapperStyle={{ gap: 10, justifyContent: 'center' }}
            initialNumToRender={12}
            windowSize={5}
            renderItem={({ item, index }) => (
              <View style={{ alignItems: 'center', width: THUMB + 14, opacity: item.out ? 0.35 : 1 }}>
                <Thumb
                  doc={doc}
                  slot={item}
                  onPress={() => {
                    if (editing) return pages.set(index, { out: !item.out });
                    goTo(doc.id, item.page);
                    onClose();
                  }}
                />
                {editing ? <SlotActs pages={pages} slot={item} index={index} busy={tools.busy} /> : null}
              </View>
            )}
          />
          {editing ? <UseThem pages={pages} busy={tools.busy} /> : null}
        </View>
      </Modal>
    </DeskPortal>
  );
}

function OtherDocument({
  documents,
  of,
  by,
  onGo,
}: {
  documents: DocumentFacts[];
  of: DocumentFacts;
  by: 1 | -1;
  onGo: (id: string) => void;
}) {
  if (documents.length < 2) return null;
  const to = itemAt(documents, (documents.indexOf(of) + by + documents.length) % documents.length);
  return (
    <IconButton
      name={by < 0 ? 'chevron-left' : 'chevron-right'}
      label={by < 0 ? TEXT.documentBefore : TEXT.nextDocument}
      onPress={() => onGo(to.id)}
    />
  );
}

/** A thumbnail, with its number of marks. */
function Thumb({ doc, slot, onPress }: { doc: DocumentFacts; slot: Slot; onPress: () => void }) {
  const p = usePalette();
  const size = itemAt(doc.pages, slot.page - 1);
  const isHigh = size.width <= size.height;
  const { marks, here } = useDesk((s) => {
    const at = positionOf(s);
    const onPage = s.view.marks.filter((m) => m.documentId === doc.id && m.page === slot.page && !isSenders(m.kind));
    return { marks: onPage.length, here: at?.documentId === doc.id && at.page === slot.page };
  });
  return (
    <>
      <Pressable
        role="button"
        testID={`thumb-${slot.page}`}
        aria-label={TEXT.page(slot.page, count(marks, 'mark'), slot.out ? TEXT.leftOutWithin : '')}
        onPress={onPress}
        style={{
          width: THUMB + 8,
          height: 132,
          alignItems: 'center',
          justifyContent: 'center',
          borderRadius: 8,
          borderWidth: 2,
          borderColor: here ? p.brick : 'transparent',
        }}
      >
        <Image
          source={{ uri: `${urlOf('documentPage', { documentId: doc.id, page: slot.page })}?dpi=24` }}
          style={{
            width: isHigh ? (120 * size.width) / size.height : THUMB,
            height: isHigh ? 120 : (THUMB * size.height) / size.width,
            backgroundColor: '#FFFFFF',
            borderWidth: 1,
            borderColor: p.rule,
            // On its side a page is as wide as it was high; it is shown smaller to stay in its place.
            transform: [{ rotate: `${slot.turn}deg` }, { scale: slot.turn % 180 ? 0.78 : 1 }],
          }}
          resizeMode="stretch"
        />
      </Pressable>
      <Small style={here ? { color: p.brick, fontFamily: FONT.bold } : null}>
        {`${slot.page}${marks ? `, ${count(marks, 'mark')}` : ''}`}
      </Small>
    </>
  );
}

/** What can be done with a page. */
function SlotActs({ pages, slot, index, busy }: { pages: Slots; slot: Slot; index: number; busy: boolean }) {
  const { page, out } = slot;
  return (
    <Row align="stretch" justify="center" wrap style={{ width: THUMB + 14 }}>
      <IconButton
        name="chevron-left"
        label={TEXT.pageEarlier(page)}
        disabled={index === 0}
        onPress={() => pages.swap(index, index - 1)}
      />
      <IconButton
        name="chevron-right"
        label={TEXT.pageLater(page)}
        disabled={index === pages.slots.length - 1}
        onPress={() => pages.swap(index, index + 1)}
      />
      <IconButton
        name="turn"
        label={TEXT.turnPage(page)}
        onPress={() => pages.set(index, { turn: turned(slot.turn) })}
        testID={`turn-${page}`}
      />
      <IconButton
        name={out ? 'plus' : 'trash'}
        label={out ? TEXT.putPageBack(page) : TEXT.leavePageOut(page)}
        onPress={() => pages.set(index, { out: !out })}
        testID={`out-${page}`}
      />
      {!pages.isChanged && page > 1 ? (
        <Button kind="quiet" onPress={() => void pages.split(page)} disabled={busy}>
          {TEXT.splitBefore}
        </Button>
      ) : null}
    </Row>
  );
}

function UseThem({ pages, busy }: { pages: Slots; busy: boolean }) {
  const p = usePalette();
  return (
    <Stack gap={8} style={{ padding: 12, backgroundColor: p.sheet, borderTopWidth: 1, borderColor: p.rule }}>
      {pages.left.length === 0 ? <Note tone="stop" title={TEXT.keepAtLeastOnePage} /> : null}
      <Small>{TEXT.marksMoveWithTheirPages}</Small>
      <Row gap={8} align="stretch">
        <Button
          kind="main"
          disabled={!pages.isChanged || pages.left.length === 0}
          busy={busy}
          onPress={() => void pages.apply()}
          testID="apply-pages"
        >
          {TEXT.useThesePages}
        </Button>
        <Button onPress={pages.reset} disabled={!pages.isChanged}>
          {TEXT.discardChanges}
        </Button>
      </Row>
    </Stack>
  );
}
