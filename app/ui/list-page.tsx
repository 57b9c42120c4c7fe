/** A page with one long list: items far from view are not rendered, and older ones are fetched as the end nears. */
import type { ReactElement, ReactNode } from 'react';
import { FlatList, View } from 'react-native';
import { usePalette, useWide } from './hooks';
import { useOlder, type Older } from './older';
import { Button, Loading, Trouble } from './pieces';

interface Paged<T> extends Older {
  data?: { pages: { items: T[] }[] };
  isPending: boolean;
  error: unknown;
  isSuccess: boolean;
  isFetchingNextPage: boolean;
  refetch: () => unknown;
}

interface Props<T> {
  /** What is above the list. */
  header: ReactNode;
  /** What the items are, for the loading message: "the deals". */
  what: string;
  /** The label of the button that fetches older items. */
  more: string;
  list: Paged<T>;
  render: (item: T) => ReactElement;
  /** Shown instead of a list without items. */
  empty: ReactElement;
}

const GAP = 16;
/** Maximum width of a column; a wide screen has two. */
const COLUMN = 760;
const TWO = 1160;

export const itemsOf = <T,>(list: Pick<Paged<T>, 'data'>): T[] => list.data?.pages.flatMap((page) => page.items) ?? [];

export function ListPage<T extends { id: string }>({ header, what, more, list, render, empty }: Props<T>) {
  const p = usePalette();
  const columns = useWide() ? 2 : 1;
  const next = useOlder(list);
  // Half the gap on each side, so that a lone item of the last row is as wide as the others.
  const side = columns > 1 ? GAP / 2 : 0;
  const above = (
    <View style={{ gap: GAP, paddingBottom: GAP, paddingHorizontal: side }}>
      {header}
      {list.isPending ? <Loading what={what} /> : null}
      {list.isError ? <Trouble error={list.error} retry={() => void list.refetch()} /> : null}
    </View>
  );
  return (
    <View role="main" style={{ flex: 1, backgroundColor: p.paper }}>
      <FlatList
        key={columns}
        numColumns={columns}
        data={itemsOf(list)}
        keyExtractor={(item) => item.id}
        renderItem={({ item }) => (
          <View style={{ flex: 1, maxWidth: `${100 / columns}%`, paddingBottom: GAP, paddingHorizontal: side }}>
            {render(item)}
          </View>
        )}
        contentContainerStyle={{
          padding: GAP,
          paddingHorizontal: GAP - side,
          paddingBottom: 40,
          width: '100%',
          maxWidth: (columns > 1 ? TWO : COLUMN) + 2 * GAP,
          alignSelf: 'center',
        }}
        initialNumToRender={20}
        windowSize={9}
        maxToRenderPerBatch={40}
        onEndReached={next}
        onEndReachedThreshold={1}
        ListHeaderComponent={above}
        ListEmptyComponent={list.isSuccess ? empty : null}
        ListFooterComponent={
          list.hasNextPage ? (
            <Button onPress={next} busy={list.isFetchingNextPage}>
              {more}
            </Button>
          ) : null
        }
      />
    </View>
  );
}
