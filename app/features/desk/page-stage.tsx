/** The current page with its marks, printed places and changes; touching free paper uses the chosen tool. */
import { type RefObject, useEffect, useRef, useState } from 'react';
import { Pressable, ScrollView, View, type LayoutChangeEvent } from 'react-native';
import { urlOf } from '@gatepath/contract/paths';
import { NOBODY } from '@gatepath/core/packet';
import type { PageFacts } from '@gatepath/core/paper';
import { usePalette, useWide } from '../../ui/hooks';
import { IconButton } from '../../ui/pieces';
import { Body, Small } from '../../ui/text';
import { Redlines } from '../pages/redlines';
import { Sheet } from '../pages/sheet';
import { AddPapers } from './packet-cards';
import { PagesSheet } from './pages-sheet';
import { PlacedMark } from './placed-mark';
import { ProposalBox } from './proposal-box';
import { RedlineHandles } from './redline-handles';
import { usePinch } from './use-pinch';
import type { Desk } from './use-desk';
import { elementOf, webProps, webStyle } from '../../ui/web';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export const ZOOMS = [1, 1.25, 1.5, 2, 3, 4];

type Insert = (x: number, y: number) => void;

export function PageStage({ desk, onInsert }: { desk: Desk; onInsert: Insert }) {
  const p = usePalette();
  const [room, setRoom] = useState({ width: 0, height: 0 });
  const measure = (e: LayoutChangeEvent) =>
    setRoom({ width: e.nativeEvent.layout.width, height: e.nativeEvent.layout.height });
  // One view is measured whatever is in it: a view that is not measured at first never is.
  return (
    <View style={{ flex: 1, backgroundColor: p.bench }} onLayout={measure}>
      {desk.at ? <Stage desk={desk} onInsert={onInsert} room={room} /> : <NoPageYet desk={desk} />}
    </View>
  );
}

/** Shown while there is no page: nothing was added yet, or the pages are still being read. */
function NoPageYet({ desk }: { desk: Desk }) {
  const inDraft = (id: string) => desk.draft.documents.some((d) => d.id === id);
  const reading = desk.packet.documents.find((d) => d.status === 'reading' && inDraft(d.id));
  if (!desk.draft.documents.length)
    return (
      <Stack gap={16} grow style={{ padding: 24, maxWidth: 560, width: '100%', alignSelf: 'center' }}>
        <Body>{TEXT.thereIsNoDocument}</Body>
        <AddPapers desk={desk} />
      </Stack>
    );
  return reading ? (
    <View role="status" style={{ flex: 1, padding: 24 }} testID="still-reading">
      <Body>{TEXT.thePagesOfAreBeing(reading.name, reading.pagesRead, reading.pages.length)}</Body>
    </View>
  ) : null;
}

/** The current page, within the available size in pixels. */
function Stage({ desk, onInsert, room }: { desk: Desk; onInsert: Insert; room: { width: number; height: number } }) {
  const wide = useWide();
  const [zoom, setZoom] = useState(1);
  const [pages, setPages] = useState(false);
  const paper = useRef<View>(null);
  const area = useRef<View>(null);
  usePinch(area, zoom, setZoom);
  const { at, view } = desk;
  const doc = at && view.documents.find((d) => d.id === at.documentId);
  const page = doc?.pages[(at?.page ?? 1) - 1];
  const fit = page ? Math.min(wide ? 760 : 1200, room.width - (wide ? 48 : 24)) : 0;
  const width = Math.max(0, fit * zoom);
  const scale = page ? width / page.width : 1;
  const scroller = useSight({ desk, paper, area, scale, height: width ? room.height : 0 });
  return (
    <>
      {doc && at ? (
        <StageBar desk={desk} name={doc.name} of={doc.pages.length} zoom={zoom} onZoom={setZoom} onPages={setPages} />
      ) : null}
      <View ref={area} style={{ flex: 1 }}>
        <ScrollView ref={scroller} style={{ flex: 1 }} contentContainerStyle={{ flexGrow: 1, paddingBottom: 24 }}>
          <ScrollView
            horizontal
            contentContainerStyle={{ flexGrow: 1, justifyContent: 'center', padding: wide ? 20 : 12 }}
          >
            {page && at && width > 0 ? (
              <Sheet
                key={`${at.documentId}:${at.page}`}
                page={page}
                width={width}
                url={urlOf('documentPage', { documentId: at.documentId, page: at.page })}
                label={TEXT.pageOfOf(at.page, doc.name)}
                testID="sheet"
              >
                <Layers desk={desk} at={at} page={page} scale={scale} paper={paper} onInsert={onInsert} />
              </Sheet>
            ) : null}
          </ScrollView>
        </ScrollView>
      </View>
      {pages ? <PagesSheet desk={desk} onClose={() => setPages(false)} /> : null}
    </>
  );
}

/** Scrolls to what is selected, unless it is visible already. @returns the ref of the view that scrolls */
function useSight(o: {
  desk: Desk;
  paper: RefObject<View | null>;
  area: RefObject<View | null>;
  scale: number;
  /** Of the visible area; 0 while there is no page. */
  height: number;
}) {
  const { at, selected, proposal } = o.desk;
  const { paper, area } = o;
  const scroller = useRef<ScrollView>(null);
  const inSight = selected[0] ?? proposal;
  const isHere = inSight && at && inSight.page === at.page && inSight.documentId === at.documentId;
  // Read when something is selected, and not again while it is dragged.
  const now = { y: isHere ? inSight.rect.y * o.scale : null, height: o.height };
  const sight = useRef(now);
  sight.current = now;
  useEffect(() => {
    const { y, height } = sight.current;
    if (y === null || !height) return;
    // What is visible stays where it is: a page that jumps under the finger misplaces the next touch.
    const top = elementOf(paper)?.getBoundingClientRect().top;
    const view = elementOf(area)?.getBoundingClientRect();
    if (top !== undefined && view && top + y > view.top + 8 && top + y < view.bottom - 40) return;
    scroller.current?.scrollTo({ y: Math.max(0, y - height * 0.4), animated: true });
  }, [inSight?.id, paper, area]);
  return scroller;
}

/** Goes through the pages, and zooms. */
function StageBar(o: {
  desk: Desk;
  /** The document and its number of pages. */
  name: string;
  of: number;
  zoom: number;
  onZoom: (zoom: number) => void;
  onPages: (open: boolean) => void;
}) {
  const { desk, zoom } = o;
  const p = usePalette();
  const zoomBy = (by: 1 | -1) =>
    o.onZoom((by > 0 ? ZOOMS.find((x) => x > zoom + 0.01) : [...ZOOMS].reverse().find((x) => x < zoom - 0.01)) ?? zoom);
  return (
    <Row justify="center" style={{ backgroundColor: p.sheet, borderBottomWidth: 1, borderColor: p.rule }}>
      <IconButton name="chevron-left" label={TEXT.pageBefore} onPress={() => desk.step(-1)} />
      <Small numberOfLines={1} tone="ink" center style={{ minWidth: 92, flexShrink: 1 }}>
        {TEXT.pageOfDocument(desk.draft.documents.length > 1 ? `${o.name}, ` : '', desk.at?.page ?? 1, o.of)}
      </Small>
      <IconButton name="chevron-right" label={TEXT.nextPage} onPress={() => desk.step(1)} />
      <IconButton name="pages" label={TEXT.allPages} onPress={() => o.onPages(true)} testID="all-pages" />
      <IconButton name="zoom-out" label={TEXT.smaller} disabled={zoom <= 1} onPress={() => zoomBy(-1)} />
      <IconButton name="zoom-in" label={TEXT.larger} disabled={zoom >= 4} onPress={() => zoomBy(1)} />
    </Row>
  );
}

interface LayersProps {
  desk: Desk;
  at: NonNullable<Desk['at']>;
  page: PageFacts;
  scale: number;
  paper: RefObject<View | null>;
  onInsert: Insert;
}

/** Uses the chosen tool at a point of the page, by touch or from the keyboard. */
function useTool({ desk, page, scale, paper, onInsert }: LayersProps) {
  const point = (native: { clientX: number; clientY: number }) => {
    const box = elementOf(paper)?.getBoundingClientRect();
    return box ? { x: (native.clientX - box.left) / scale, y: (native.clientY - box.top) / scale } : null;
  };
  const touch = (e: { nativeEvent: unknown }) => {
    const to = point(e.nativeEvent as MouseEvent);
    if (!to || desk.tool === 'strike') return;
    if (desk.tool === 'insert') onInsert(to.x, to.y);
    else desk.placeAt(to.x, to.y);
  };
  // Without a pointer the mark goes to the center of the page; the arrow keys move it from there.
  const onKeyDown = (e: { key: string; target: unknown; currentTarget: unknown; preventDefault: () => void }) => {
    if (e.target !== e.currentTarget) return;
    if (e.key === 'Enter') {
      if (desk.tool === 'insert') onInsert(page.width / 2, page.height / 2);
      else if (desk.tool === 'strike') desk.strike({ x: 0, y: page.height / 2 }, { x: page.width, y: page.height / 2 });
      else desk.placeAt(page.width / 2, page.height / 2);
    } else if (e.key === 'PageDown') desk.step(1);
    else if (e.key === 'PageUp') desk.step(-1);
    else return;
    e.preventDefault();
  };
  return { point, touch, onKeyDown };
}

/** What lies on the page: the paper to touch, changes, proposals and marks. */
function Layers(props: LayersProps) {
  const { desk, at, page, scale, paper } = props;
  const { draft, view } = desk;
  const { point, touch, onKeyDown } = useTool(props);
  const here = <T extends { documentId: string; page: number }>(all: T[]) =>
    all.filter((x) => x.documentId === at.documentId && x.page === at.page);
  const redlines = here(draft.redlines);
  const partyOf = (id: string | null) => draft.parties.find((q) => q.id === id) ?? null;
  return (
    <>
      <Pressable
        ref={paper}
        role="button"
        tabIndex={0}
        testID="paper"
        aria-label={TEXT.pageTapToPlace(at.page)}
        onPress={touch}
        {...webProps({ onKeyDown })}
        style={webStyle({ position: 'absolute', left: 0, top: 0, right: 0, bottom: 0, cursor: 'crosshair' })}
      />
      <Redlines page={page} scale={scale} redlines={redlines} />
      {here(view.proposals)
        .filter((x) => x.state === 'open' && !x.stranger)
        .map((x) => (
          <ProposalBox
            key={x.id}
            proposal={x}
            party={partyOf(x.partyId)}
            scale={scale}
            selected={desk.proposal?.id === x.id}
            onSelect={() => desk.pickProposal(x.id)}
          />
        ))}
      {here(view.marks).map((m) => {
        const party = partyOf(m.partyId);
        return party || m.partyId === NOBODY ? (
          <PlacedMark
            key={m.id}
            mark={m}
            party={party}
            scale={scale}
            selected={desk.selected.some((s) => s.id === m.id)}
            alone={desk.selected.length === 1}
            desk={desk}
          />
        ) : null;
      })}
      <RedlineHandles desk={desk} redlines={redlines} page={page} scale={scale} point={point} />
    </>
  );
}
