/** Deals on a wide screen: many rows, chosen columns, and a bar with the acts on the selected ones. */
import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  useReactTable,
  type Row as TableRow,
  type VisibilityState,
} from '@tanstack/react-table';
import { useState, type ReactElement } from 'react';
import { FlatList, Pressable, View } from 'react-native';
import type { DealSummary } from '@gatepath/contract';
import type { DealAsk } from '../../api/hooks';
import { usePalette } from '../../ui/hooks';
import { DropMenu, MenuItem } from '../../ui/menu';
import { IconButton } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { TickBox } from '../../ui/tick-box';
import { FONT } from '../../ui/theme';
import { DealCell, ROW } from './deal-cell';
import { InHand } from './in-hand';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

const KEPT = 'gatepath:deal-columns';

/** Widths of columns, as shares of the remaining width or in pixels. */
const WIDTHS: Record<string, { flex?: number; width?: number }> = {
  address: { flex: 2.2 },
  kind: { width: 84 },
  status: { width: 124 },
  whom: { width: 108 },
  papers: { width: 86 },
  goal: { width: 104 },
  path: { width: 190 },
  hold: { flex: 2.4 },
  tags: { flex: 1 },
  opened: { width: 104 },
};
const WORDS: Record<string, string> = {
  address: TEXT.address,
  kind: TEXT.kind,
  status: TEXT.status,
  whom: TEXT.forWhom,
  papers: TEXT.papersDone,
  goal: TEXT.targetDate,
  path: TEXT.path,
  hold: TEXT.progress,
  tags: TEXT.tags,
  opened: TEXT.opened,
};
/** Columns by which the list can be ordered. */
const ORDERS: Partial<Record<string, NonNullable<DealAsk['order']>>> = {
  address: 'address',
  goal: 'goal',
  opened: 'opened',
};
const AT_FIRST: VisibilityState = { whom: false, tags: false, opened: false };

function chosenColumns(): VisibilityState {
  try {
    const kept: unknown = JSON.parse(window.localStorage.getItem(KEPT) ?? 'null');
    if (typeof kept !== 'object' || kept === null) return AT_FIRST;
    return Object.fromEntries(Object.keys(WIDTHS).map((k) => [k, Reflect.get(kept, k) !== false]));
  } catch {
    return AT_FIRST;
  }
}

const column = createColumnHelper<DealSummary>();
const COLUMNS = Object.keys(WIDTHS).map((id) =>
  column.display({ id, cell: ({ row }) => <DealCell id={id} deal={row.original} /> }),
);

interface Props {
  deals: DealSummary[];
  ask: DealAsk;
  onAsk: (ask: DealAsk) => void;
  header: ReactElement;
  empty: ReactElement | null;
  footer: ReactElement | null;
  onEnd: () => void;
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function DealsTable({ deals, ask, onAsk, header, empty, footer, onEnd }: Props) {
  const p = usePalette();
  const [columnVisibility, setColumns] = useState<VisibilityState>(chosenColumns);
  const [rowSelection, setInHand] = useState<Record<string, boolean>>({});
  const table = useReactTable({
    data: deals,
    columns: COLUMNS,
    getCoreRowModel: getCoreRowModel(),
    getRowId: (d) => d.id,
    state: { columnVisibility, rowSelection },
    onRowSelectionChange: setInHand,
    onColumnVisibilityChange: (next) => {
      const now = typeof next === 'function' ? next(columnVisibility) : next;
      window.localStorage.setItem(KEPT, JSON.stringify(now));
      setColumns(now);
    },
    manualSorting: true,
  });
  const rows = table.getRowModel().rows;
  const inHand = rows.filter((r) => r.getIsSelected());
  return (
    <View role="main" style={{ flex: 1, backgroundColor: p.paper }}>
      <FlatList
        data={rows}
        keyExtractor={(r) => r.id}
        renderItem={({ item }) => <DealRow row={item} chosen={item.getIsSelected()} columns={columnVisibility} />}
        extraData={[rowSelection, columnVisibility]}
        initialNumToRender={30}
        windowSize={5}
        maxToRenderPerBatch={60}
        onEndReached={onEnd}
        onEndReachedThreshold={1.5}
        contentContainerStyle={{ padding: 16, paddingBottom: 96, maxWidth: 1500, width: '100%', alignSelf: 'center' }}
        ListHeaderComponent={
          <Stack gap={12}>
            {header}
            {rows.length ? (
              <Row gap={8} style={{ minHeight: 44, borderBottomWidth: 2, borderColor: p.rule }}>
                <Box
                  on={table.getIsAllRowsSelected()}
                  label={TEXT.selectAllThatAreShown}
                  onPress={() => table.toggleAllRowsSelected()}
                />
                {table.getVisibleLeafColumns().map((c) => (
                  <Head key={c.id} id={c.id} ask={ask} onAsk={onAsk} />
                ))}
                <DropMenu
                  anchor={(open) => (
                    <IconButton name="more" label={TEXT.chooseTheColumns} onPress={open} testID="columns" />
                  )}
                >
                  {table.getAllLeafColumns().map((c) => (
                    <MenuItem
                      key={c.id}
                      title={`${c.getIsVisible() ? TEXT.leaveOut : TEXT.show} ${WORDS[c.id] ?? c.id}`}
                      onPress={() => c.toggleVisibility()}
                    />
                  ))}
                </DropMenu>
              </Row>
            ) : null}
          </Stack>
        }
        ListEmptyComponent={empty}
        ListFooterComponent={footer}
      />
      {inHand.length ? <InHand deals={inHand.map((r) => r.original)} onDone={() => setInHand({})} /> : null}
    </View>
  );
}

function Head({ id, ask, onAsk }: { id: string; ask: DealAsk; onAsk: (ask: DealAsk) => void }) {
  const order = ORDERS[id];
  const on = order !== undefined && (ask.order ?? 'opened') === order;
  const words = (
    <Small numberOfLines={1} style={{ fontFamily: on ? FONT.bold : FONT.text }}>
      {`${WORDS[id] ?? id}${on ? ' ▾' : ''}`}
    </Small>
  );
  return (
    <View style={WIDTHS[id]}>
      {order ? (
        <Pressable
          role="button"
          aria-label={TEXT.sortBy(WORDS[id] ?? id)}
          aria-pressed={on}
          onPress={() => onAsk({ ...ask, order })}
          style={{ minHeight: 44, justifyContent: 'center' }}
          testID={`order-${order}`}
        >
          {words}
        </Pressable>
      ) : (
        words
      )}
    </View>
  );
}

function Box({ on, label, onPress }: { on: boolean; label: string; onPress: () => void }) {
  return (
    <Pressable
      role="checkbox"
      aria-checked={on}
      aria-label={label}
      onPress={onPress}
      style={{ width: 44, height: ROW, alignItems: 'center', justifyContent: 'center' }}
    >
      <TickBox on={on} size={20} />
    </Pressable>
  );
}

function DealRow({
  row,
  chosen,
  columns: _columns,
}: {
  row: TableRow<DealSummary>;
  chosen: boolean;
  /** The row is rendered again when these change. */
  columns: VisibilityState;
}) {
  const p = usePalette();
  const d = row.original;
  return (
    <Row
      testID="deal-row"
      gap={8}
      style={{
        height: ROW,
        borderBottomWidth: 1,
        borderColor: p.rule,
        backgroundColor: chosen ? p.brickWash : undefined,
      }}
    >
      <Box on={chosen} label={TEXT.select(d.address)} onPress={() => row.toggleSelected()} />
      {row.getVisibleCells().map((cell) => (
        <View
          key={cell.id}
          style={{ ...WIDTHS[cell.column.id], height: ROW, justifyContent: 'center', overflow: 'hidden' }}
        >
          {flexRender(cell.column.columnDef.cell, cell.getContext())}
        </View>
      ))}
      <View style={{ width: 44 }} />
    </Row>
  );
}
