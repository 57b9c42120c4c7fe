/** From place to place: one thing to do at a time, with what is left always visible. */
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { ScrollView, useWindowDimensions, View, type LayoutChangeEvent } from 'react-native';
import { firstName } from '@gatepath/core/text';
import { usePalette } from '../../ui/hooks';
import { Button } from '../../ui/pieces';
import { Small, Strong } from '../../ui/text';
import { Token } from '../../ui/token';
import type { StepProps } from './step';
import { leftByKind } from './parts';
import { PlaceAct } from './place-act';
import { dpiFor } from '../pages/sheet';
import { useFiles } from './files';
import { signingPlaces, type SigningPlace } from './places';
import { SigningSheet } from './signing-sheet';
import { useSay, useWords } from './say';
import type { OwnMark } from './own-rules';
import { elementOf, pictureAhead } from '../../ui/web';
import { itemAt } from '@gatepath/core/sure';
import { Banner } from '../../ui/banner';
import { Row, Stack } from '../../ui/layout';

const MARGIN = 10;
const ZOOMS = [1, 1.6, 2.4];

/** Returns the places of the party, the current one, and the page that is shown. */
function useWay(view: StepProps['view'], at: string | null) {
  const places = signingPlaces(view);
  const required = places.filter((x) => x.required);
  const [chosen, choose] = useState<string | null>(at);
  const [skipped, setSkipped] = useState<string[]>([]);
  // In reading order, optional ones included until they are filled or skipped.
  const ahead = places.filter((x) => !x.done && (x.required || !skipped.includes(x.key)));
  const place = places.find((x) => x.marks.some((m) => m.id === chosen)) ?? ahead[0] ?? null;
  const current = place?.marks[0] ?? null;
  // After the last place the page stays where it was.
  const lastPlace = useRef<OwnMark | null>(null);
  if (current) lastPlace.current = current;
  const shown = current ?? lastPlace.current ?? view.marks[view.marks.length - 1] ?? null;
  return {
    place,
    current,
    ahead,
    shown,
    doc: view.documents.find((d) => d.id === shown?.documentId) ?? itemAt(view.documents, 0),
    page: shown?.page ?? 1,
    total: required.length,
    done: required.filter((x) => x.done).length,
    choose,
    skip(key: string) {
      setSkipped((was) => [...was, key]);
      choose(null);
    },
  };
}
type Way = ReturnType<typeof useWay>;

/** Moves the focus to the next act once its page is loaded: keyboard and screen reader users find it place after place. */
function useNextAct({ place, choose }: Way, there: boolean) {
  const key = place?.key;
  const panel = useRef<View>(null);
  const acted = useRef(false);
  useEffect(() => {
    if (!acted.current || !there) return;
    acted.current = false;
    elementOf(panel)?.querySelector<HTMLElement>('[data-act]')?.focus({ preventScroll: true });
  }, [key, there]);
  const next = () => {
    acted.current = true;
    choose(null);
  };
  return { panel, next };
}

export function PlacesStep({ token, signing, view, onSide, at }: StepProps & { at: string | null }) {
  const p = usePalette();
  const t = useSay();
  const way = useWay(view, at);
  const { place, ahead, doc, page } = way;
  const pages = useShownPages();
  const sheet = `${doc.id}:${page}`;
  const there = !place || pages.shown.has(sheet);
  const { panel, next } = useNextAct(way, there);
  const [zoom, setZoom] = useState(0);
  // At twice the size, or on a very small screen, bars and page cannot share the height: all of it scrolls.
  const screen = useWindowDimensions();
  const tight = screen.width < 300 || screen.height < 520;
  return (
    <Frame tight={tight} color={p.bench}>
      <Head view={view} way={way} tight={tight} onPages={() => onSide('pages')} />
      <PageArea
        token={token}
        view={view}
        way={way}
        pages={pages}
        zoom={zoom}
        height={tight ? screen.height * 0.7 : null}
      />
      <ScrollView
        style={{
          flexGrow: 0,
          maxHeight: tight ? undefined : '62%',
          backgroundColor: p.sheet,
          borderTopWidth: 1,
          borderColor: p.rule,
        }}
        contentContainerStyle={{ padding: 14 }}
      >
        <View ref={panel} role="region" aria-label={t('sign.left.show')} style={{ gap: 10 }}>
          {!there ? (
            <PageAwaited missing={pages.missing.has(sheet)} onRetry={pages.retry} />
          ) : place ? (
            <PlaceAct
              key={place.key}
              token={token}
              signing={signing}
              view={view}
              place={place}
              next={ahead.find((x) => x.key !== place.key)?.marks[0] ?? null}
              onHand={() => onSide('hand')}
              onNext={next}
              onSkip={place.required && !place.done ? undefined : () => way.skip(place.key)}
            />
          ) : (
            <AllDone onFinish={signing.finish} />
          )}
          <Ways zoom={zoom} onZoom={setZoom} onSide={onSide} />
        </View>
      </ScrollView>
    </Frame>
  );
}

/** Who signs, which page it is, and how much is left. */
function Head(o: { view: StepProps['view']; way: Way; tight: boolean; onPages: () => void }) {
  const { view, way, tight } = o;
  const p = usePalette();
  const t = useSay();
  const words = useWords();
  const { doc, page, done, total } = way;
  return (
    <Banner style={{ paddingHorizontal: 14, paddingVertical: 10, gap: 8 }}>
      <Row wrap style={{ columnGap: 10 }}>
        <Token name={view.me.name} ink={view.me.ink} size={34} />
        <View style={{ flex: 1, minWidth: tight ? 110 : 140 }}>
          <Strong level={1} style={{ fontSize: 18 }}>
            {t('sign.as', { first: firstName(view.me.name) })}
          </Strong>
          <Small numberOfLines={tight ? undefined : 1}>
            {t('sign.page_of', { page, pages: doc.pages.length, name: doc.name })}
          </Small>
        </View>
        <Button kind="quiet" onPress={o.onPages} label={t('sign.left.show')} testID="pages">
          {t('sign.pages')}
        </Button>
      </Row>
      <View
        role="progressbar"
        aria-label={t('sign.progress')}
        aria-valuemin={0}
        aria-valuemax={total}
        aria-valuenow={done}
        style={{ height: 8, borderRadius: 4, backgroundColor: p.rule, overflow: 'hidden' }}
      >
        <View style={{ height: 8, width: `${(100 * done) / Math.max(1, total)}%`, backgroundColor: p.moss }} />
      </View>
      <Small testID="left">{leftByKind(t, words, view)}</Small>
    </Banner>
  );
}

/** The page of the current place, scrolled to it. */
function PageArea(o: {
  token: string;
  view: StepProps['view'];
  way: Way;
  pages: ReturnType<typeof useShownPages>;
  zoom: number;
  /** Null to fill the screen. */
  height: number | null;
}) {
  const { token, view, pages } = o;
  const { doc, page, shown, current, ahead, choose } = o.way;
  const sheet = `${doc.id}:${page}`;
  const [room, setRoom] = useState({ width: 0, height: 0 });
  const scroller = useRef<ScrollView>(null);
  const width = Math.max(0, Math.min(820, room.width - 2 * MARGIN)) * itemAt(ZOOMS, o.zoom);
  const size = doc.pages[page - 1];
  const y = shown && size && width ? shown.rect.y * (width / size.width) + MARGIN : null;
  useEffect(() => {
    if (y !== null) scroller.current?.scrollTo({ y: Math.max(0, y - room.height * 0.55), animated: true });
  }, [sheet, y, room.height]);
  usePicturesAhead(useSoonNeeded(token, view, ahead, width));
  return (
    <View
      role="main"
      style={o.height === null ? { flex: 1 } : { height: o.height }}
      onLayout={(e: LayoutChangeEvent) =>
        setRoom({ width: e.nativeEvent.layout.width, height: e.nativeEvent.layout.height })
      }
    >
      <ScrollView ref={scroller} contentContainerStyle={{ paddingVertical: MARGIN }}>
        <ScrollView
          horizontal
          contentContainerStyle={{ flexGrow: 1, justifyContent: 'center', paddingHorizontal: MARGIN }}
        >
          {width > 0 ? (
            <SigningSheet
              key={`${sheet}:${pages.tries}`}
              token={token}
              view={view}
              documentId={doc.id}
              page={page}
              width={width}
              current={current}
              onTouch={(m) => choose(m.id)}
              onPicture={(is) => pages.note(sheet, is)}
            />
          ) : null}
        </ScrollView>
      </ScrollView>
    </View>
  );
}

/** Ways to other steps, and the zoom. */
function Ways(o: { zoom: number; onZoom: (zoom: number) => void; onSide: StepProps['onSide'] }) {
  const t = useSay();
  return (
    <Row align="stretch" justify="between" wrap>
      <Button kind="quiet" onPress={() => o.onSide('read')}>
        {t('sign.read')}
      </Button>
      <Button kind="quiet" onPress={() => o.onZoom((o.zoom + 1) % ZOOMS.length)} testID="zoom">
        {t(o.zoom === ZOOMS.length - 1 ? 'sign.smaller' : 'sign.larger')}
      </Button>
      <Button kind="quiet" onPress={() => o.onSide('more')} testID="more">
        {t('sign.more')}
      </Button>
    </Row>
  );
}

/** Every place is filled: the act that ends the ceremony. */
function AllDone({ onFinish }: { onFinish: () => void }) {
  const t = useSay();
  return (
    <>
      <Strong style={{ fontSize: 19 }}>{t('sign.place.all_done')}</Strong>
      <Small>{t('sign.place.press_finish')}</Small>
      <Button large kind="main" act onPress={onFinish} testID="finish">
        {t('sign.finish')}
      </Button>
    </>
  );
}

/** Number of pages fetched ahead of the current one: enough for an elevator, a basement or a tunnel. */
const PAGES_AHEAD = 6;

/** Returns one mark on each of the next pages with something to do. */
function pagesOf(ahead: SigningPlace[]): OwnMark[] {
  const byPage = new Map<string, OwnMark>();
  for (const { marks } of ahead) {
    const [mark] = marks;
    if (mark && byPage.size < PAGES_AHEAD) byPage.set(`${mark.documentId}:${mark.page}`, mark);
  }
  return [...byPage.values()];
}

/** Returns the addresses of the pictures of the next pages with something to do, at a width on the screen. */
function useSoonNeeded(token: string, view: StepProps['view'], ahead: SigningPlace[], width: number): string[] {
  const files = useFiles(token);
  if (width <= 0) return [];
  return pagesOf(ahead).flatMap((m) => {
    const size = view.documents.find((d) => d.id === m.documentId)?.pages[m.page - 1];
    return size ? [`${files.page(m.documentId, m.page)}?dpi=${dpiFor(size, width)}`] : [];
  });
}

/** Fetches pictures that will be needed soon, so that they show without a connection too. */
function usePicturesAhead(uris: string[]): void {
  const held = useRef(new Map<string, unknown>());
  const wanted = uris.join(' ');
  useEffect(() => {
    for (const uri of wanted.split(' ').filter(Boolean))
      if (!held.current.has(uri)) held.current.set(uri, pictureAhead(uri));
  }, [wanted]);
}

/** Tracks which pages this screen has shown, because a page must be seen before it can be signed. */
function useShownPages() {
  const [shown, setShown] = useState<ReadonlySet<string>>(new Set());
  const [missing, setMissing] = useState<ReadonlySet<string>>(new Set());
  const [tries, setTries] = useState(0);
  return {
    shown,
    missing,
    tries,
    note(sheet: string, is: 'shown' | 'missing') {
      (is === 'shown' ? setShown : setMissing)((was) => new Set([...was, sheet]));
    },
    retry() {
      setMissing(new Set());
      setTries((n) => n + 1);
    },
  };
}

/** Shown instead of the act while the page cannot be seen. */
function PageAwaited({ missing, onRetry }: { missing: boolean; onRetry: () => void }) {
  const t = useSay();
  return (
    <Stack role="status" gap={8} testID="page-awaited">
      <Strong>{t(missing ? 'problem.page' : 'sign.place.page_awaited')}</Strong>
      {missing ? (
        <Button large kind="main" onPress={onRetry} testID="page-again">
          {t('sign.try_again')}
        </Button>
      ) : null}
    </Stack>
  );
}

/** The screen: a column that fills it, or one that scrolls if there is too little space. */
function Frame({ tight, color, children }: { tight: boolean; color: string; children: ReactNode }) {
  if (!tight) return <View style={{ flex: 1, backgroundColor: color }}>{children}</View>;
  return <ScrollView style={{ flex: 1, backgroundColor: color }}>{children}</ScrollView>;
}
