/** The page in hand, with its marks; touching free paper places what is in hand. */
import { useRef, useState } from 'react';
import { Pressable, ScrollView, View, type LayoutChangeEvent } from 'react-native';
import { pathOf } from '@gatepath/contract';
import { usePalette, useWide } from '../../ui/hooks';
import { IconButton } from '../../ui/pieces';
import { Body, Small } from '../../ui/text';
import { Sheet } from '../pages/sheet';
import { PlacedMark } from './placed-mark';
import type { Desk } from './use-desk';

const ZOOMS = [1, 1.5, 2, 3];

export function PageStage({ desk }: { desk: Desk }) {
  const p = usePalette();
  const wide = useWide();
  const [room, setRoom] = useState({ width: 0, height: 0 });
  const [zoom, setZoom] = useState(0);
  const paper = useRef<View>(null);
  const { at, view, draft } = desk;
  const doc = at && view.documents.find((d) => d.id === at.documentId);
  const page = doc?.pages[(at?.page ?? 1) - 1];
  const measure = (e: LayoutChangeEvent) =>
    setRoom({ width: e.nativeEvent.layout.width, height: e.nativeEvent.layout.height });
  if (!draft.documents.length)
    return (
      <View style={{ flex: 1, padding: 24 }}>
        <Body>There is no document in this packet yet. Add papers to the deal, then choose them under Path.</Body>
      </View>
    );
  const fit = page ? Math.min(wide ? 760 : 1200, room.width - (wide ? 48 : 24)) : 0;
  const width = Math.max(0, fit * ZOOMS[zoom]!);
  const scale = page ? width / page.width : 1;
  const marks = at ? view.marks.filter((m) => m.documentId === at.documentId && m.page === at.page) : [];

  const touch = (e: { nativeEvent: unknown }) => {
    const el = paper.current as unknown as HTMLElement | null;
    const native = e.nativeEvent as MouseEvent;
    if (!el) return;
    const box = el.getBoundingClientRect();
    desk.placeAt((native.clientX - box.left) / scale, (native.clientY - box.top) / scale);
  };
  // Without a pointer the mark goes to the middle of the page; the arrow keys take it from there.
  const onKeyDown = (e: { key: string; target: unknown; currentTarget: unknown; preventDefault: () => void }) => {
    if (e.target !== e.currentTarget || !page) return;
    if (e.key === 'Enter') desk.placeAt(page.width / 2, page.height / 2);
    else if (e.key === 'PageDown') desk.step(1);
    else if (e.key === 'PageUp') desk.step(-1);
    else return;
    e.preventDefault();
  };
  return (
    <View style={{ flex: 1, backgroundColor: p.bench }} onLayout={measure}>
      {doc && at ? (
        <View
          style={{
            flexDirection: 'row',
            alignItems: 'center',
            justifyContent: 'center',
            backgroundColor: p.sheet,
            borderBottomWidth: 1,
            borderColor: p.rule,
          }}
        >
          <IconButton name="chevron-left" label="Page before" onPress={() => desk.step(-1)} />
          <Small
            numberOfLines={1}
            style={{ color: p.ink, minWidth: 92, flexShrink: 1, textAlign: 'center' }}
          >{`${draft.documents.length > 1 ? `${doc.name}, ` : ''}page ${at.page} of ${doc.pages.length}`}</Small>
          <IconButton name="chevron-right" label="Next page" onPress={() => desk.step(1)} />
          <IconButton
            name="zoom-out"
            label="Smaller"
            disabled={zoom === 0}
            onPress={() => setZoom((z) => Math.max(0, z - 1))}
          />
          <IconButton
            name="zoom-in"
            label="Larger"
            disabled={zoom === ZOOMS.length - 1}
            onPress={() => setZoom((z) => Math.min(ZOOMS.length - 1, z + 1))}
          />
        </View>
      ) : null}
      <ScrollView style={{ flex: 1 }} contentContainerStyle={{ flexGrow: 1, paddingBottom: 24 }}>
        <ScrollView
          horizontal
          contentContainerStyle={{ flexGrow: 1, justifyContent: 'center', padding: wide ? 20 : 12 }}
        >
          {page && at && width > 0 ? (
            <Sheet
              key={`${at.documentId}:${at.page}`}
              page={page}
              width={width}
              url={pathOf('documentPage', { documentId: at.documentId, page: at.page })}
              label={`Page ${at.page} of ${doc.name}`}
              testID="sheet"
            >
              <Pressable
                ref={paper}
                role="button"
                tabIndex={0}
                testID="paper"
                aria-label={`Page ${at.page}. Touch to place, or press Enter to place in the middle.`}
                onPress={touch}
                {...({ onKeyDown } as object)}
                style={{ position: 'absolute', left: 0, top: 0, right: 0, bottom: 0, cursor: 'crosshair' } as never}
              />
              {marks.map((m) => {
                const party = draft.parties.find((q) => q.id === m.partyId);
                return party ? (
                  <PlacedMark
                    key={m.id}
                    mark={m}
                    party={party}
                    scale={scale}
                    selected={desk.selected?.id === m.id}
                    onSelect={() => desk.select(m.id)}
                    onMove={(rect) => desk.moveMark(m, rect)}
                    onDelete={() => desk.deleteMark(m)}
                  />
                ) : null;
              })}
            </Sheet>
          ) : null}
        </ScrollView>
      </ScrollView>
    </View>
  );
}
