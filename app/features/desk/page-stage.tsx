/** The current page, or two side by side, with marks, printed places and changes; touching free paper uses the tool. */
import { type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { Pressable, ScrollView, View, type LayoutChangeEvent } from 'react-native';
import { mdiBookOpenPageVariantOutline, mdiFileOutline } from '@mdi/js';
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
import { EveryPage } from './tool-bar';
import { hintOf } from './tools';
import { usePinch } from './use-pinch';
import { onPage, positionOf, proposalInHand, selectedMarks, shownPages, type PageAt } from './desk-state';
import { useDesk, useDeskActs, useDeskStore } from './use-desk';
import { elementOf, webProps, webStyle } from '../../ui/web';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export const ZOOMS = [1, 1.25, 1.5, 2, 3, 4];

/** Width in pixels that a page needs at least, for two to be side by side. */
const LEAST_BESIDE = 500;
/** Width in pixels beyond which a single page does not grow. */
const MOST_ALONE = 900;
const GAP = 16;

type Insert = (x: number, y: number) => void;

interface Room {
  width: number;
  height: number;
}

export function PageStage({ onInsert }: { onInsert: Insert }) {
  const p = usePalette();
  const hasPage = useDesk((s) => positionOf(s) !== null);
  const [room, setRoom] = useState<Room>({ width: 0, height: 0 });
  const measure = (e: LayoutChangeEvent) =>
    setRoom({ width: e.nativeEvent.layout.width, height: e.nativeEvent.layout.height });
  // One view is measured whatever is in it: a view that is not measured at first never is.
  return (
    <View style={{ flex: 1, backgroundColor: p.bench }} onLayout={measure}>
      {hasPage ? <Stage onInsert={onInsert} room={room} /> : <NoPageYet />}
    </View>
  );
}

/** Shown while there is no page: nothing was added yet, or the pages are still being read. */
function NoPageYet() {
  const { documents, packet } = useDesk((s) => ({ documents: s.draft.documents, packet: s.packet }));
  const reading = packet.documents.find((d) => d.status === 'reading' && documents.some((x) => x.id === d.id));
  if (!documents.length)
    return (
      <Stack gap={16} grow style={{ padding: 24, maxWidth: 560, width: '100%', alignSelf: 'center' }}>
        <Body>{TEXT.thereIsNoDocument}</Body>
        <AddPapers />
      </Stack>
    );
  return reading ? (
    <View role="status" style={{ flex: 1, padding: 24 }} testID="still-reading">
      <Body>{TEXT.thePagesOfAreBeing(reading.name, reading.pagesRead, reading.pages.length)}</Body>
    </View>
  ) : null;
}

/** Shows two pages side by side where they fit, unless the member has chosen one. */
function useSideBySide(room: Room) {
  const { showPages } = useDeskActs();
  const { shown, several } = useDesk((s) => ({
    shown: s.pagesShown,
    several: s.view.documents.some((d) => d.pages.length > 1),
  }));
  const [wantsOne, setWantsOne] = useState(false);
  const fits = several && room.width >= 2 * LEAST_BESIDE + 3 * GAP;
  const pages = fits && !wantsOne ? 2 : 1;
  useEffect(() => showPages(pages), [showPages, pages]);
  return { shown, fits, turn: () => setWantsOne((x) => !x) };
}

/** The current page, and the one beside it, within the available size in pixels. */
function Stage({ onInsert, room }: { onInsert: Insert; room: Room }) {
  const wide = useWide();
  const [zoom, setZoom] = useState(1);
  const [pages, setPages] = useState(false);
  const paper = useRef<View>(null);
  const area = useRef<View>(null);
  usePinch(area, zoom, setZoom);
  const beside = useSideBySide(room);
  const documents = useDesk((s) => s.view.documents);
  const shown = useDesk((s) => shownPages(s).map(({ documentId, page }) => `${documentId}:${page}`));
  const at = useDesk(positionOf);
  const doc = documents.find((d) => d.id === at?.documentId);
  if (!doc || !at) return null;
  const edges = (beside.shown + 1) * (wide ? GAP : 12);
  const fit = Math.min(beside.shown === 2 ? room.width : MOST_ALONE, (room.width - edges) / beside.shown);
  const width = Math.max(0, fit * zoom);
  return (
    <>
      <StageBar name={doc.name} of={doc.pages.length} zoom={zoom} onZoom={setZoom} onPages={setPages} beside={beside} />
      <View ref={area} style={{ flex: 1 }}>
        <Scroller paper={paper} area={area} page={doc.pages[at.page - 1]} width={width} height={room.height}>
          {doc.pages.map((facts, i) =>
            width > 0 && shown.includes(`${doc.id}:${i + 1}`) ? (
              <PageSheet
                key={`${doc.id}:${i + 1}`}
                documentId={doc.id}
                number={i + 1}
                name={doc.name}
                page={facts}
                width={width}
                paper={paper}
                onInsert={onInsert}
              />
            ) : null,
          )}
        </Scroller>
      </View>
      {pages ? <PagesSheet onClose={() => setPages(false)} /> : null}
    </>
  );
}

interface ScrollerProps {
  paper: RefObject<View | null>;
  area: RefObject<View | null>;
  page: PageFacts | undefined;
  /** Width of a page on the screen. */
  width: number;
  /** Height of the visible area. */
  height: number;
  children: React.ReactNode;
}

/** Scrolls the pages in both directions. Brings what is selected into view if it is not visible. */
function Scroller({ paper, area, page, width, height, children }: ScrollerProps) {
  const wide = useWide();
  const scroller = useRef<ScrollView>(null);
  const { id, top } = useDesk((s) => {
    const seen = selectedMarks(s)[0] ?? proposalInHand(s);
    return { id: seen?.id, top: seen?.rect.y ?? null };
  });
  const scale = page ? width / page.width : 1;
  // Read when something is selected, and not again while it is dragged.
  const now = { y: top === null ? null : top * scale, height: width ? height : 0 };
  const sight = useRef(now);
  sight.current = now;
  useEffect(() => {
    const { y, height } = sight.current;
    if (y === null || !height) return;
    // What is visible stays where it is: a page that jumps under the finger misplaces the next touch.
    const edge = elementOf(paper)?.getBoundingClientRect().top;
    const view = elementOf(area)?.getBoundingClientRect();
    if (edge !== undefined && view && edge + y > view.top + 8 && edge + y < view.bottom - 40) return;
    scroller.current?.scrollTo({ y: Math.max(0, y - height * 0.4), animated: true });
  }, [id, paper, area]);
  return (
    <ScrollView ref={scroller} style={{ flex: 1 }} contentContainerStyle={{ flexGrow: 1, paddingBottom: 24 }}>
      <ScrollView
        horizontal
        contentContainerStyle={{ flexGrow: 1, justifyContent: 'center', gap: GAP, padding: wide ? GAP : 12 }}
      >
        {children}
      </ScrollView>
    </ScrollView>
  );
}

/** Goes through the pages, and zooms. */
function StageBar(o: {
  /** The document and its number of pages. */
  name: string;
  of: number;
  zoom: number;
  onZoom: (zoom: number) => void;
  onPages: (open: boolean) => void;
  beside: ReturnType<typeof useSideBySide>;
}) {
  const { zoom, beside } = o;
  const p = usePalette();
  const { step } = useDeskActs();
  const shown = useDesk((s) => shownPages(s).map((x) => x.page));
  const wide = useWide();
  const { several, hint } = useDesk((s) => ({ several: s.draft.documents.length > 1, hint: hintOf(s) }));
  const zoomBy = (by: 1 | -1) =>
    o.onZoom((by > 0 ? ZOOMS.find((x) => x > zoom + 0.01) : [...ZOOMS].reverse().find((x) => x < zoom - 0.01)) ?? zoom);
  const name = several ? `${o.name}, ` : '';
  const [first = 1, last = first] = shown;
  return (
    <Row justify="center" style={{ backgroundColor: p.sheet, borderBottomWidth: 1, borderColor: p.rule }}>
      {wide ? (
        <Small grow numberOfLines={2} style={{ paddingHorizontal: 12 }}>
          {hint}
        </Small>
      ) : null}
      <IconButton name="chevron-left" label={TEXT.pageBefore} onPress={() => step(-1)} />
      <Small numberOfLines={1} tone="ink" center style={{ minWidth: 92, flexShrink: 1 }}>
        {last > first ? TEXT.pagesOfDocument(name, first, last, o.of) : TEXT.pageOfDocument(name, first, o.of)}
      </Small>
      <IconButton name="chevron-right" label={TEXT.nextPage} onPress={() => step(1)} />
      <IconButton name="pages" label={TEXT.allPages} onPress={() => o.onPages(true)} testID="all-pages" />
      {beside.fits ? (
        <IconButton
          name={{ path: beside.shown === 2 ? mdiFileOutline : mdiBookOpenPageVariantOutline }}
          label={beside.shown === 2 ? TEXT.onePageAlone : TEXT.twoPages}
          onPress={beside.turn}
          testID="side-by-side"
        />
      ) : null}
      <IconButton name="zoom-out" label={TEXT.smaller} disabled={zoom <= 1} onPress={() => zoomBy(-1)} />
      <IconButton name="zoom-in" label={TEXT.larger} disabled={zoom >= 4} onPress={() => zoomBy(1)} />
      {wide ? (
        <Row grow justify="end" style={{ paddingHorizontal: 12 }}>
          <EveryPage color={p.ink} />
        </Row>
      ) : null}
    </Row>
  );
}

interface PageProps {
  documentId: string;
  /** Its number, from 1. */
  number: number;
  /** The name of its document. */
  name: string;
  page: PageFacts;
  /** Width in pixels. */
  width: number;
  /** The paper of the current page. */
  paper: RefObject<View | null>;
  onInsert: Insert;
}

/** A page with everything that lies on it. */
export function PageSheet({ documentId, number, name, page, width, paper, onInsert }: PageProps) {
  const at = useMemo((): PageAt => ({ documentId, page: number }), [documentId, number]);
  const isCurrent = useDesk((s) => {
    const now = positionOf(s);
    return now?.documentId === documentId && now.page === number;
  });
  const other = useRef<View>(null);
  return (
    <Sheet
      page={page}
      width={width}
      url={urlOf('documentPage', { documentId, page: number })}
      label={TEXT.pageOfOf(number, name)}
      testID={isCurrent ? 'sheet' : `sheet-${number}`}
    >
      <Layers
        at={at}
        page={page}
        scale={width / page.width}
        paper={isCurrent ? paper : other}
        isCurrent={isCurrent}
        onInsert={onInsert}
      />
    </Sheet>
  );
}

interface LayersProps {
  at: PageAt;
  page: PageFacts;
  scale: number;
  paper: RefObject<View | null>;
  isCurrent: boolean;
  onInsert: Insert;
}

/** Uses the chosen tool at a point of the page, by touch or from the keyboard. */
function useTool({ at, page, scale, paper, onInsert }: LayersProps) {
  const { acts, store } = useDeskStore();
  const point = (native: { clientX: number; clientY: number }) => {
    const box = elementOf(paper)?.getBoundingClientRect();
    return box ? { x: (native.clientX - box.left) / scale, y: (native.clientY - box.top) / scale } : null;
  };
  const touch = (e: { nativeEvent: unknown }) => {
    const to = point(e.nativeEvent as MouseEvent);
    const { tool } = store.getState();
    if (!to || tool === 'strike') return;
    acts.makeCurrent(at);
    if (tool === 'insert') onInsert(to.x, to.y);
    else acts.placeAt(to.x, to.y);
  };
  // Without a pointer the mark goes to the center of the page; the arrow keys move it from there.
  const onKeyDown = (e: { key: string; target: unknown; currentTarget: unknown; preventDefault: () => void }) => {
    if (e.target !== e.currentTarget) return;
    const { tool } = store.getState();
    if (e.key === 'Enter') {
      acts.makeCurrent(at);
      if (tool === 'insert') onInsert(page.width / 2, page.height / 2);
      else if (tool === 'strike') acts.strike({ x: 0, y: page.height / 2 }, { x: page.width, y: page.height / 2 });
      else acts.placeAt(page.width / 2, page.height / 2);
    } else if (e.key === 'PageDown') acts.step(1);
    else if (e.key === 'PageUp') acts.step(-1);
    else return;
    e.preventDefault();
  };
  return { point, touch, onKeyDown };
}

/** What lies on the page: the paper to touch, changes, proposals and marks. */
function Layers(props: LayersProps) {
  const { at, page, scale, paper, isCurrent } = props;
  const { point, touch, onKeyDown } = useTool(props);
  const parties = useDesk((s) => s.draft.parties);
  const redlines = useDesk((s) => onPage(s.draft.redlines, at));
  const marks = useDesk((s) => onPage(s.view.marks, at));
  const open = useDesk((s) => onPage(s.view.proposals, at).filter((x) => x.state === 'open' && !x.stranger));
  const partyOf = (id: string | null) => parties.find((q) => q.id === id) ?? null;
  return (
    <>
      <Pressable
        ref={paper}
        role="button"
        tabIndex={0}
        testID={isCurrent ? 'paper' : `paper-${at.page}`}
        aria-label={TEXT.pageTapToPlace(at.page)}
        onPress={touch}
        {...webProps({ onKeyDown })}
        style={webStyle({ position: 'absolute', left: 0, top: 0, right: 0, bottom: 0, cursor: 'crosshair' })}
      />
      <Redlines page={page} scale={scale} redlines={redlines} />
      {open.map((x) => (
        <ProposalBox key={x.id} proposal={x} party={partyOf(x.partyId)} scale={scale} />
      ))}
      {marks.map((m) => {
        const party = partyOf(m.partyId);
        return party || m.partyId === NOBODY ? <PlacedMark key={m.id} mark={m} party={party} scale={scale} /> : null;
      })}
      <RedlineHandles at={at} redlines={redlines} page={page} scale={scale} point={point} />
    </>
  );
}
