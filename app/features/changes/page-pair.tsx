/** Two pages side by side, with changes marked by shape and color. */
import { useState } from 'react';
import { View } from 'react-native';
import { urlOf, type ComparisonView } from '@gatepath/contract';
import { MARK_INKS, markedAs, type Change } from '@gatepath/core/changed';
import { usePalette } from '../../ui/hooks';
import { IconButton } from '../../ui/pieces';
import { Body, Small } from '../../ui/text';
import { AtRect } from '../pages/mark-box';
import { Sheet } from '../pages/sheet';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** The changes marked on one page of either version. */
export function ChangeBoxes(o: {
  changes: readonly Change[];
  chosen: Change | null;
  side: 'before' | 'after';
  page: number;
  scale: number;
}) {
  return o.changes.flatMap((c, i) => {
    const kind = markedAs(c, o.side);
    const color = MARK_INKS[kind];
    return (c[o.side]?.boxes ?? [])
      .filter((b) => b.page === o.page)
      .map((b, k) => (
        <AtRect key={`${i}.${k}`} rect={b.rect} scale={o.scale}>
          <View
            style={{
              position: 'absolute',
              top: -2,
              bottom: -2,
              left: -2,
              right: -2,
              backgroundColor: `${color}2E`,
              borderColor: color,
              borderWidth: c === o.chosen || kind === 'moved' ? 2 : 0,
              borderBottomWidth: kind === 'put_in' || c === o.chosen || kind === 'moved' ? 2 : 0,
              borderStyle: kind === 'moved' ? 'dashed' : 'solid',
              borderRadius: 2,
            }}
          />
          {kind === 'struck' && !c.drawn ? (
            <View style={{ position: 'absolute', left: 0, right: 0, top: '48%', height: 2, backgroundColor: color }} />
          ) : null}
        </AtRect>
      ));
  });
}

interface Props {
  view: ComparisonView;
  shown: readonly Change[];
  chosen: Change | null;
  /** Which row of pages. */
  row: number;
  onRow: (row: number) => void;
}

const GAP = 16;

/** One row of pages, with buttons to the next. */
export function PagePair({ view, shown, chosen, row, onRow }: Props) {
  const [width, setWidth] = useState(0);
  const pair = view.pages[row];
  if (!pair) return null;
  const half = (width - GAP) / 2;
  return (
    <Stack gap={8} onLayout={(e) => setWidth(e.nativeEvent.layout.width)} testID="page-pair">
      <Row justify="center">
        <IconButton name="chevron-left" label={TEXT.pagesBefore} disabled={row === 0} onPress={() => onRow(row - 1)} />
        <Small>{TEXT.of(row + 1, view.pages.length)}</Small>
        <IconButton
          name="chevron-right"
          label={TEXT.nextPages}
          disabled={row >= view.pages.length - 1}
          onPress={() => onRow(row + 1)}
        />
      </Row>
      {width ? (
        <Row align="start" style={{ gap: GAP }}>
          {(['before', 'after'] as const).map((side) => (
            <Half key={side} view={view} side={side} page={pair[side]} width={half} shown={shown} chosen={chosen} />
          ))}
        </Row>
      ) : null}
    </Stack>
  );
}

function Half(o: {
  view: ComparisonView;
  side: 'before' | 'after';
  page: number | null;
  width: number;
  shown: readonly Change[];
  chosen: Change | null;
}) {
  const p = usePalette();
  const word = o.side === 'before' ? TEXT.before : TEXT.now;
  const size = o.page === null ? undefined : o.view[o.side].pages[o.page - 1];
  if (o.page === null || !size)
    return (
      <Stack gap={4} style={{ width: o.width }}>
        <Small>{word}</Small>
        <View style={{ borderWidth: 1, borderStyle: 'dashed', borderColor: p.rule, padding: 24 }}>
          <Body>{o.side === 'before' ? TEXT.thisPageIsNew : TEXT.thisPageIsGone}</Body>
        </View>
      </Stack>
    );
  return (
    <Stack gap={4}>
      <Small>{TEXT.pageOfSide(word, o.page)}</Small>
      <Sheet
        page={size}
        url={urlOf('documentPage', { documentId: o.view[o.side].id, page: o.page })}
        width={o.width}
        label={TEXT.pageOf(word, o.page, o.view[o.side].name)}
      >
        <ChangeBoxes changes={o.shown} chosen={o.chosen} side={o.side} page={o.page} scale={o.width / size.width} />
      </Sheet>
    </Stack>
  );
}
