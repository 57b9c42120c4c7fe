/** All pages small: to go to one, and to leave out, turn, reorder or split the pages of a document. */
import { isSenders } from '@gatepath/core/packet';
import { useMemo, useState } from 'react';
import { FlatList, Image, Pressable, View } from 'react-native';
import { Modal, Portal } from 'react-native-paper';
import { pathOf } from '@gatepath/contract/paths';
import type { PageMove } from '@gatepath/core/packet';
import { count } from '@gatepath/core/text';
import { usePalette, useWide } from '../../ui/hooks';
import { Button, IconButton, Note, Trouble } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { useDocumentTools } from './use-document-tools';
import type { Desk } from './use-desk';
import { webStyle } from '../../ui/web';
import { itemAt } from '@gatepath/core/sure';

type Turn = 0 | 90 | 180 | 270;
interface Slot {
  page: number;
  turn: Turn;
  out: boolean;
}

const THUMB = 96;

export function PagesSheet({ desk, onClose }: { desk: Desk; onClose: () => void }) {
  const p = usePalette();
  const wide = useWide();
  const tools = useDocumentTools(desk);
  const documents = desk.view.documents;
  const [documentId, setDocument] = useState(desk.at?.documentId ?? documents[0]?.id ?? '');
  const doc = documents.find((d) => d.id === documentId) ?? documents[0];
  const start = useMemo(() => (doc?.pages ?? []).map((_, i): Slot => ({ page: i + 1, turn: 0, out: false })), [doc]);
  const [order, setOrder] = useState<{ of: string; slots: Slot[] } | null>(null);
  const slots = order && order.of === documentId ? order.slots : start;
  const [editing, setEditing] = useState(false);
  if (!doc) return null;
  const change = (next: Slot[]) => setOrder({ of: documentId, slots: next });
  const at = (i: number, more: Partial<Slot>) => change(slots.map((s, k) => (k === i ? { ...s, ...more } : s)));
  const swap = (i: number, k: number) => {
    const next = [...slots];
    [next[i], next[k]] = [itemAt(next, k), itemAt(next, i)];
    change(next);
  };
  const left = slots.filter((s) => !s.out);
  const changed = slots.some((s, i) => s.page !== i + 1 || s.turn || s.out);
  const apply = async () => {
    const made = await tools.compose({
      name: doc.name,
      parts: left.map((s) => ({ documentId: doc.id, page: s.page, turn: s.turn })),
      replaces: [doc.id],
    });
    if (!made) return;
    tools.swap(
      doc.pages.map((size, i): PageMove => {
        const to = left.findIndex((s) => s.page === i + 1);
        return {
          from: { documentId: doc.id, page: i + 1 },
          to: to < 0 ? null : { documentId: made.id, page: to + 1, turn: itemAt(left, to).turn },
          size,
        };
      }),
      [made.id],
    );
    onClose();
  };
  /** Splits the document before a page. */
  const split = async (before: number) => {
    const ranges = [
      doc.pages.map((_, i) => i + 1).slice(0, before - 1),
      doc.pages.map((_, i) => i + 1).slice(before - 1),
    ];
    const made: string[] = [];
    for (const [i, pages] of ranges.entries()) {
      const part = await tools.compose({
        name: `${doc.name}, part ${i + 1}`,
        parts: pages.map((page) => ({ documentId: doc.id, page, turn: 0 })),
        replaces: i === 0 ? [doc.id] : [],
      });
      if (!part) return;
      made.push(part.id);
    }
    tools.swap(
      doc.pages.map((size, i): PageMove => ({
        from: { documentId: doc.id, page: i + 1 },
        to: {
          documentId: i + 1 < before ? itemAt(made, 0) : itemAt(made, 1),
          page: i + 1 < before ? i + 1 : i + 2 - before,
          turn: 0,
        },
        size,
      })),
      made,
    );
    onClose();
  };
  const columns = wide ? 8 : 3;
  return (
    <Portal>
      <Modal visible onDismiss={onClose} contentContainerStyle={webStyle({ position: 'absolute', inset: 0 })}>
        <View style={{ flex: 1, backgroundColor: p.paper }} testID="pages-sheet">
          <View style={{ flexDirection: 'row', alignItems: 'center', padding: 10, gap: 8, backgroundColor: p.sheet }}>
            {documents.length > 1 ? (
              <IconButton
                name="chevron-left"
                label="Document before"
                onPress={() => {
                  const i = documents.indexOf(doc);
                  setDocument(itemAt(documents, (i + documents.length - 1) % documents.length).id);
                }}
              />
            ) : null}
            <View style={{ flex: 1 }}>
              <Strong numberOfLines={1}>{doc.name}</Strong>
              <Small>{count(left.length, 'page')}</Small>
            </View>
            {documents.length > 1 ? (
              <IconButton
                name="chevron-right"
                label="Next document"
                onPress={() => {
                  const i = documents.indexOf(doc);
                  setDocument(itemAt(documents, (i + 1) % documents.length).id);
                }}
              />
            ) : null}
            <Button kind="quiet" onPress={() => setEditing((x) => !x)} testID="change-pages">
              {editing ? 'Only look' : 'Change pages'}
            </Button>
            <IconButton name="close" label="Back to the desk" onPress={onClose} testID="pages-close" />
          </View>
          {tools.error ? (
            <View style={{ padding: 10 }}>
              <Trouble error={tools.error} />
            </View>
          ) : null}
          <FlatList
            key={columns}
            data={slots}
            numColumns={columns}
            keyExtractor={(s) => `${doc.id}:${s.page}`}
            contentContainerStyle={{ padding: 10, gap: 12 }}
            columnWrapperStyle={{ gap: 10, justifyContent: 'center' }}
            initialNumToRender={12}
            windowSize={5}
            renderItem={({ item, index }) => {
              const size = itemAt(doc.pages, item.page - 1);
              const marks = desk.view.marks.filter(
                (m) => m.documentId === doc.id && m.page === item.page && !isSenders(m.kind),
              ).length;
              const here = desk.at?.documentId === doc.id && desk.at.page === item.page;
              return (
                <View style={{ alignItems: 'center', width: THUMB + 14, opacity: item.out ? 0.35 : 1 }}>
                  <Pressable
                    role="button"
                    testID={`thumb-${item.page}`}
                    aria-label={`Page ${item.page}, ${count(marks, 'mark')}${item.out ? ', left out' : ''}`}
                    onPress={() => {
                      if (editing) return at(index, { out: !item.out });
                      desk.goTo(doc.id, item.page);
                      onClose();
                    }}
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
                      source={{ uri: `${pathOf('documentPage', { documentId: doc.id, page: item.page })}?dpi=24` }}
                      style={{
                        width: size.width <= size.height ? (120 * size.width) / size.height : THUMB,
                        height: size.width <= size.height ? 120 : (THUMB * size.height) / size.width,
                        backgroundColor: '#FFFFFF',
                        borderWidth: 1,
                        borderColor: p.rule,
                        // On its side a page is as wide as it was high; it is shown smaller to stay in its place.
                        transform: [{ rotate: `${item.turn}deg` }, { scale: item.turn % 180 ? 0.78 : 1 }],
                      }}
                      resizeMode="stretch"
                    />
                  </Pressable>
                  <Small style={here ? { color: p.brick, fontFamily: FONT.bold } : null}>
                    {`${item.page}${marks ? `, ${count(marks, 'mark')}` : ''}`}
                  </Small>
                  {editing ? (
                    <View
                      style={{ flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'center', width: THUMB + 14 }}
                    >
                      <IconButton
                        name="chevron-left"
                        label={`Page ${item.page} earlier`}
                        disabled={index === 0}
                        onPress={() => swap(index, index - 1)}
                      />
                      <IconButton
                        name="chevron-right"
                        label={`Page ${item.page} later`}
                        disabled={index === slots.length - 1}
                        onPress={() => swap(index, index + 1)}
                      />
                      <IconButton
                        name="turn"
                        label={`Turn page ${item.page}`}
                        onPress={() => at(index, { turn: ((item.turn + 90) % 360) as Turn })}
                        testID={`turn-${item.page}`}
                      />
                      <IconButton
                        name={item.out ? 'plus' : 'trash'}
                        label={item.out ? `Put page ${item.page} back` : `Leave page ${item.page} out`}
                        onPress={() => at(index, { out: !item.out })}
                        testID={`out-${item.page}`}
                      />
                      {!changed && item.page > 1 ? (
                        <Button kind="quiet" onPress={() => void split(item.page)} disabled={tools.busy}>
                          Split before
                        </Button>
                      ) : null}
                    </View>
                  ) : null}
                </View>
              );
            }}
          />
          {editing ? (
            <View style={{ padding: 12, gap: 8, backgroundColor: p.sheet, borderTopWidth: 1, borderColor: p.rule }}>
              {left.length === 0 ? <Note tone="stop" title="Leave at least one page in." /> : null}
              <Small>Marks move with their pages. The document as it was brought in stays in the deal.</Small>
              <View style={{ flexDirection: 'row', gap: 8 }}>
                <Button
                  kind="main"
                  disabled={!changed || left.length === 0}
                  busy={tools.busy}
                  onPress={() => void apply()}
                  testID="apply-pages"
                >
                  Use these pages
                </Button>
                <Button onPress={() => setOrder(null)} disabled={!changed}>
                  As it was
                </Button>
              </View>
            </View>
          ) : null}
        </View>
      </Modal>
    </Portal>
  );
}
