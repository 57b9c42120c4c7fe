/** The page ledger as a table: a row per page, a column per party. Touching a cell goes there. */
import { memo, useMemo, useState } from 'react';
import { FlatList, Pressable, View } from 'react-native';
import { Svg, Path } from '../../ui/svg';
import type { CellState, LedgerCell, LedgerRow } from '@gatepath/core/packet';
import { Icon } from '../../ui/icon';
import { usePalette } from '../../ui/hooks';
import { Body, Small, Strong } from '../../ui/text';
import { Token } from '../../ui/token';
import { FONT } from '../../ui/theme';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

export interface LedgerParty {
  id: string;
  name: string;
  ink: number;
  /** For a slot: the letters in its outline. */
  letters?: string | undefined;
}

interface Props {
  rows: LedgerRow[];
  parties: LedgerParty[];
  documents: { id: string; name: string }[];
  onTouch: (documentId: string, page: number, partyId: string) => void;
  /** The selected cell. */
  here?: { documentId: string; page: number; partyId: string | null } | null;
  /** Lets the table scroll within this height; without it the table has its full height. */
  height?: number;
}

const SAYS: Record<CellState, string> = {
  none: TEXT.nothingToDo,
  initials: TEXT.initialsWanted,
  signature: TEXT.signatureWanted,
  other: TEXT.somethingToFillIn,
  gap: TEXT.gapInitialsAreMissing,
  excepted: TEXT.exceptedFromTheInitials,
  done: 'done',
};

/** Returns what a person has to do on a page, in words. */
export const saysOf = (name: string, state: CellState): string => TEXT.whoAndWhat(name, SAYS[state]);

type Line = { key: string; head: string } | { key: string; row: LedgerRow };

const ROW = 44;

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function LedgerGrid({ rows, parties, documents, onTouch, here, height }: Props) {
  const lines = useMemo(() => {
    const out: Line[] = [];
    let doc = '';
    for (const row of rows) {
      if (row.documentId !== doc) {
        doc = row.documentId;
        out.push({ key: doc, head: documents.find((d) => d.id === doc)?.name ?? TEXT.document });
      }
      out.push({ key: `${doc}:${row.page}`, row });
    }
    return out;
  }, [rows, documents]);
  // Many people share the width; a cell is never too small to distinguish.
  const [width, setWidth] = useState(0);
  const cell = width ? Math.max(28, Math.min(44, Math.floor((width - 44) / Math.max(1, parties.length)))) : 44;
  const list = (
    <FlatList
      data={lines}
      keyExtractor={(l) => l.key}
      scrollEnabled={height !== undefined}
      style={height === undefined ? undefined : { height }}
      initialNumToRender={24}
      windowSize={5}
      getItemLayout={(_, index) => ({ length: ROW, offset: ROW * index, index })}
      extraData={[here, cell]}
      renderItem={({ item }) =>
        'head' in item ? (
          <View style={{ height: ROW, justifyContent: 'flex-end', paddingBottom: 6 }}>
            <Strong numberOfLines={1}>{item.head}</Strong>
          </View>
        ) : (
          <LedgerRow
            row={item.row}
            parties={parties}
            cell={cell}
            label={width - cell * parties.length < 66 ? String(item.row.page) : TEXT.page(item.row.page)}
            onTouch={onTouch}
            here={
              here && here.documentId === item.row.documentId && here.page === item.row.page
                ? (here.partyId ?? '')
                : null
            }
          />
        )
      }
    />
  );
  return (
    <View
      role="table"
      aria-label={TEXT.pageLedger}
      testID="ledger"
      onLayout={(e) => setWidth(e.nativeEvent.layout.width)}
    >
      <Row role="row" style={{ minHeight: 36 }}>
        <Stack grow />
        {parties.map((p) => (
          <View key={p.id} role="columnheader" style={{ width: cell, alignItems: 'center' }}>
            <Token name={p.name} letters={p.letters} ink={p.ink} size={Math.min(26, cell - 4)} />
          </View>
        ))}
      </Row>
      {list}
    </View>
  );
}

const LedgerRow = memo(function LedgerRow({
  row,
  parties,
  cell: cellWidth,
  label,
  onTouch,
  here,
}: {
  row: LedgerRow;
  parties: LedgerParty[];
  cell: number;
  label: string;
  onTouch: Props['onTouch'];
  here: string | null;
}) {
  return (
    <Row role="row" testID={`ledger-row-${row.page}`} style={{ height: ROW }}>
      <Small
        tone={here !== null ? 'act' : 'ink'}
        grow
        style={{ fontFamily: here !== null ? FONT.bold : FONT.text, fontVariant: ['tabular-nums'] }}
      >
        {label}
      </Small>
      {row.cells.map((cell) => {
        const party = parties.find((x) => x.id === cell.partyId);
        return (
          <Pressable
            key={cell.partyId}
            role="cell"
            tabIndex={0}
            testID={`cell-${row.page}-${cell.state}`}
            aria-label={TEXT.pageOf(row.page, party?.name ?? '', SAYS[cell.state])}
            onPress={() => onTouch(row.documentId, row.page, cell.partyId)}
            style={{ width: cellWidth, height: ROW, alignItems: 'center', justifyContent: 'center' }}
          >
            <LedgerSign cell={cell} here={here === cell.partyId} />
          </Pressable>
        );
      })}
    </Row>
  );
});

/** One cell: a small sign whose shape, not only color, shows its status. */
export function LedgerSign({ cell, here = false }: { cell: LedgerCell; here?: boolean }) {
  const p = usePalette();
  if (cell.state === 'none') return <View style={{ width: 4, height: 4, borderRadius: 2, backgroundColor: p.rule }} />;
  const gap = cell.state === 'gap';
  const done = cell.state === 'done';
  const border = gap ? p.wine : done ? p.moss : here ? p.brick : cell.state === 'excepted' ? p.slate : p.ink;
  const ink = done ? p.sheet : border;
  return (
    <View
      style={{
        width: 28,
        height: 22,
        borderRadius: 5,
        borderWidth: here ? 2.5 : 1.8,
        borderStyle: gap || cell.state === 'excepted' ? 'dashed' : 'solid',
        borderColor: here && !done ? p.brick : border,
        backgroundColor: done ? p.moss : here || gap ? p.brickWash : p.sheet,
        alignItems: 'center',
        justifyContent: 'center',
      }}
    >
      {gap ? (
        <Body tone="stop" style={{ fontFamily: FONT.bold, fontSize: 14, lineHeight: 16 }}>
          ?
        </Body>
      ) : cell.state === 'excepted' ? (
        <View style={{ width: 10, height: 2, backgroundColor: p.slate }} />
      ) : done && cell.wants !== 'signature' ? (
        <Icon name="check" size={16} color={ink} />
      ) : cell.wants === 'signature' ? (
        <Svg width={18} height={12} viewBox="0 0 18 12" aria-hidden>
          <Path
            d="M1 9 C4 0 6 1 6 6 S9 9 10 5 S13 3 13 6 S15 8 17 6"
            stroke={ink}
            strokeWidth={1.8}
            fill="none"
            strokeLinecap="round"
          />
        </Svg>
      ) : (
        <Body style={{ color: ink, fontFamily: FONT.bold, fontSize: 13, lineHeight: 15 }}>
          {cell.wants === 'initials' ? 'i' : 'a'}
        </Body>
      )}
    </View>
  );
}
