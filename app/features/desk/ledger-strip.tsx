/** The page ledger folded to a strip: a box per page with what is wanted there; touching one goes to the page. */
import { memo, useMemo } from 'react';
import { FlatList, Pressable } from 'react-native';
import { calledOf, type LedgerRow } from '@gatepath/core/packet';
import { usePalette } from '../../ui/hooks';
import { Small } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { LedgerSign, saysOf } from '../ledger/grid';
import { positionOf, shownPages } from './desk-state';
import { useDesk, useDeskActs } from './use-desk';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

/** Width of the strip in pixels. */
const STRIP = 68;
/** Number of signs that a page shows; what more people do there is in the ledger. */
const SIGNS = 4;

export function LedgerStrip() {
  const p = usePalette();
  const rows = useDesk((s) => s.view.ledger.rows);
  const parties = useDesk((s) => s.draft.parties);
  const documents = useDesk((s) => s.view.documents);
  const shown = useDesk((s) => shownPages(s).map((x) => `${x.documentId}:${x.page}`));
  const at = useDesk(positionOf);
  const { goTo } = useDeskActs();
  const nameOf = useMemo(() => new Map(parties.map((x) => [x.id, calledOf(x)])), [parties]);
  const documentOf = useMemo(() => new Map(documents.map((d) => [d.id, d.name])), [documents]);
  return (
    <Stack
      role="navigation"
      aria-label={TEXT.pagesOfThePacket}
      style={{ width: STRIP, borderRightWidth: 1, borderColor: p.rule }}
      testID="ledger-strip"
    >
      <FlatList
        data={rows}
        keyExtractor={(r) => `${r.documentId}:${r.page}`}
        extraData={[shown, at]}
        initialNumToRender={16}
        windowSize={5}
        contentContainerStyle={{ padding: 6, gap: 6 }}
        renderItem={({ item }) => (
          <PageBox
            row={item}
            name={documentOf.size > 1 ? (documentOf.get(item.documentId) ?? '') : ''}
            nameOf={nameOf}
            isShown={shown.includes(`${item.documentId}:${item.page}`)}
            isCurrent={at?.documentId === item.documentId && at.page === item.page}
            onGo={goTo}
          />
        )}
      />
    </Stack>
  );
}

interface BoxProps {
  row: LedgerRow;
  /** The name of its document; empty if the packet has only one document. */
  name: string;
  nameOf: ReadonlyMap<string, string>;
  isShown: boolean;
  isCurrent: boolean;
  onGo: (documentId: string, page: number) => void;
}

const PageBox = memo(function PageBox({ row, name, nameOf, isShown, isCurrent, onGo }: BoxProps) {
  const p = usePalette();
  const wanted = row.cells.filter((c) => c.state !== 'none');
  const says = wanted.map((c) => saysOf(nameOf.get(c.partyId) ?? '', c.state)).join('; ');
  return (
    <Pressable
      role="button"
      aria-label={TEXT.pageInStrip(row.page, name, says)}
      aria-current={isCurrent ? 'page' : undefined}
      onPress={() => onGo(row.documentId, row.page)}
      testID={`strip-${row.page}`}
      style={{
        alignItems: 'center',
        gap: 4,
        minHeight: 48,
        paddingVertical: 6,
        borderRadius: 8,
        borderWidth: isCurrent ? 2.5 : 1,
        borderColor: isShown ? p.brick : p.rule,
        backgroundColor: p.sheet,
      }}
    >
      {name && row.page === 1 ? (
        <Small numberOfLines={2} center style={{ fontSize: 11, lineHeight: 13, paddingHorizontal: 2 }}>
          {name}
        </Small>
      ) : null}
      <Small tone={isShown ? 'act' : 'ink'} style={{ fontFamily: isCurrent ? FONT.bold : FONT.text }}>
        {row.page}
      </Small>
      {wanted.slice(0, SIGNS).map((c) => (
        <LedgerSign key={c.partyId} cell={c} />
      ))}
      {wanted.length > SIGNS ? <Small>{TEXT.andOthersShort(wanted.length - SIGNS)}</Small> : null}
    </Pressable>
  );
});
