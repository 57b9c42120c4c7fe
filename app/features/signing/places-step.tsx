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

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function PlacesStep({ token, signing, view, onSide, at }: StepProps & { at: string | null }) {
  const p = usePalette();
  const t = useSay();
  const words = useWords();
  const places = signingPlaces(view);
  const required = places.filter((x) => x.required);
  const left = required.filter((x) => !x.done);
  const [chosen, setChosen] = useState<string | null>(at);
  const [skipped, setSkipped] = useState<string[]>([]);
  const panel = useRef<View>(null);
  const acted = useRef(false);
  // In reading order, optional ones included until they are filled or skipped.
  const ahead = places.filter((x) => !x.done && (x.required || !skipped.includes(x.key)));
  const place = places.find((x) => x.marks.some((m) => m.id === chosen)) ?? ahead[0] ?? null;
  const current = place?.marks[0] ?? null;
  // After the last place the page stays where it was.
  const lastPlace = useRef<OwnMark | null>(null);
  if (current) lastPlace.current = current;
  const shown = current ?? lastPlace.current ?? view.marks[view.marks.length - 1] ?? null;
  const doc = view.documents.find((d) => d.id === shown?.documentId) ?? itemAt(view.documents, 0);
  const page = shown?.page ?? 1;

  const pages = useShownPages();
  const sheet = `${doc.id}:${page}`;
  const [room, setRoom] = useState({ width: 0, height: 0 });
  const [zoom, setZoom] = useState(0);
  const scroller = useRef<ScrollView>(null);
  const width = Math.max(0, Math.min(820, room.width - 2 * MARGIN)) * itemAt(ZOOMS, zoom);
  useEffect(() => {
    const size = doc.pages[page - 1];
    if (!shown || !size || !width) return;
    const y = shown.rect.y * (width / size.width) + MARGIN;
    scroller.current?.scrollTo({ y: Math.max(0, y - room.height * 0.55), animated: true });
  }, [shown, doc, page, width, room.height]);

  const files = useFiles(token);
  usePicturesAhead(
    width > 0
      ? pagesOf(ahead).flatMap((m) => {
          const size = view.documents.find((d) => d.id === m.documentId)?.pages[m.page - 1];
          return size ? [`${files.page(m.documentId, m.page)}?dpi=${dpiFor(size, width)}`] : [];
        })
      : [],
  );

  // Keyboard and screen reader users find the next act focused, place after place.
  const key = place?.key;
  // An act on a page that is not loaded yet comes when it is.
  const there = !place || pages.shown.has(sheet);
  useEffect(() => {
    if (!acted.current || !there) return;
    acted.current = false;
    const el = elementOf(panel);
    el?.querySelector<HTMLElement>('[data-act]')?.focus({ preventScroll: true });
  }, [key, there]);

  const done = required.length - left.length;
  // At twice the size, or on a very small screen, bars and page cannot share the height: all of it scrolls.
  const screen = useWindowDimensions();
  const tight = screen.width < 300 || screen.height < 520;
  return (
    <Frame tight={tight} color={p.bench}>
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
          <Button kind="quiet" onPress={() => onSide('pages')} label={t('sign.left.show')} testID="pages">
            {t('sign.pages')}
          </Button>
        </Row>
        <View
          role="progressbar"
          aria-label={t('sign.progress')}
          aria-valuemin={0}
          aria-valuemax={required.length}
          aria-valuenow={done}
          style={{ height: 8, borderRadius: 4, backgroundColor: p.rule, overflow: 'hidden' }}
        >
          <View
            style={{ height: 8, width: `${(100 * done) / Math.max(1, required.length)}%`, backgroundColor: p.moss }}
          />
        </View>
        <Small testID="left">{leftByKind(t, words, view)}</Small>
      </Banner>
      <View
        role="main"
        style={tight ? { height: screen.height * 0.7 } : { flex: 1 }}
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
                onTouch={(m) => setChosen(m.id)}
                onPicture={(is) => pages.note(sheet, is)}
              />
            ) : null}
          </ScrollView>
        </ScrollView>
      </View>
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
              onNext={() => {
                acted.current = true;
                setChosen(null);
              }}
              onSkip={
                place.required && !place.done
                  ? undefined
                  : () => {
                      setSkipped((was) => [...was, place.key]);
                      setChosen(null);
                    }
              }
            />
          ) : (
            <>
              <Strong style={{ fontSize: 19 }}>{t('sign.place.all_done')}</Strong>
              <Small>{t('sign.place.press_finish')}</Small>
              <Button large kind="main" act onPress={signing.finish} testID="finish">
                {t('sign.finish')}
              </Button>
            </>
          )}
          <Row align="stretch" justify="between" wrap>
            <Button kind="quiet" onPress={() => onSide('read')}>
              {t('sign.read')}
            </Button>
            <Button kind="quiet" onPress={() => setZoom((z) => (z + 1) % ZOOMS.length)} testID="zoom">
              {t(zoom === ZOOMS.length - 1 ? 'sign.smaller' : 'sign.larger')}
            </Button>
            <Button kind="quiet" onPress={() => onSide('more')} testID="more">
              {t('sign.more')}
            </Button>
          </Row>
        </View>
      </ScrollView>
    </Frame>
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
