/** Acts on the selected marks. */
import { KINDS, NOBODY, puts, calledOf } from '@gatepath/core/packet';
import { useState } from 'react';
import { ScrollView } from 'react-native';
import { count } from '@gatepath/core/text';
import { useWide } from '../../ui/hooks';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, IconButton } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { BAR_TEXT, PartyTokens, UndoRedo } from './bar-parts';
import { isGathering, positionOf, selectedMarks, type DeskState } from './desk-state';
import { useDesk, useDeskActs } from './use-desk';
import { itemAt } from '@gatepath/core/sure';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** A button on the dark bar. */
export function BarButton(props: { children: string; onPress: () => void; testID?: string }) {
  return (
    <Button {...props} style={{ borderWidth: 0, backgroundColor: BAR_TEXT, minHeight: 44, paddingHorizontal: 14 }}>
      {props.children}
    </Button>
  );
}

/** Returns what is selected, in words, and what can be done with it. */
function wordsOf(state: DeskState): string {
  const { draft } = state;
  const selected = selectedMarks(state);
  const [one, ...more] = selected;
  if (isGathering(state)) return TEXT.selectedTapMoreOfThem(count(selected.length, 'mark'));
  if (!one || more.length) return TEXT.selected(count(selected.length, 'mark'));
  const party = draft.parties.find((x) => x.id === one.partyId);
  return one.partyId === NOBODY || !party
    ? TEXT.labelDragItOrDrag
    : TEXT.sDragItOrDrag(calledOf(party), KINDS[one.kind].word);
}

export function SelectionBar({ onDetails }: { onDetails: () => void }) {
  const { select } = useDeskActs();
  const wide = useWide();
  const [repeating, setRepeating] = useState(false);
  const words = useDesk(wordsOf);
  if (repeating) return <RepeatBar onClose={() => setRepeating(false)} />;
  const said = (
    <Body grow={!wide} numberOfLines={2} style={{ color: BAR_TEXT, fontSize: 15, lineHeight: 19, maxWidth: 260 }}>
      {words}
    </Body>
  );
  const close = (
    <IconButton name="close" label={TEXT.letGo} color={BAR_TEXT} onPress={() => select(null)} testID="let-go" />
  );
  const acts = <Acts onDetails={onDetails} onRepeat={() => setRepeating(true)} />;
  const hands = <CopyOrRemove />;
  if (wide)
    return (
      <Row gap={12} style={{ minHeight: 46 }}>
        {said}
        {acts}
        <Row>
          {hands}
          {close}
        </Row>
      </Row>
    );
  return (
    <>
      <Row>
        {said}
        {close}
      </Row>
      <ScrollView horizontal showsHorizontalScrollIndicator={false}>
        <PartyTokens />
      </ScrollView>
      {acts}
      <Row style={{ minHeight: 46 }}>
        {hands}
        <Stack grow />
        <UndoRedo />
      </Row>
    </>
  );
}

/** What can be done with the selection, in one row that scrolls: the page behind the bar is what matters. */
function Acts({ onDetails, onRepeat }: { onDetails: () => void; onRepeat: () => void }) {
  const wide = useWide();
  const several = useDesk((s) => s.selectedIds.length > 1);
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      style={wide ? { flex: 1 } : undefined}
      contentContainerStyle={{ gap: 8 }}
    >
      <BarButton onPress={onRepeat} testID="repeat">
        {TEXT.repeat}
      </BarButton>
      <OfOne onDetails={onDetails} />
      {several ? <Arrange /> : null}
      <SelectMore />
    </ScrollView>
  );
}

function CopyOrRemove() {
  const { copy, remove } = useDeskActs();
  const isOne = useDesk((s) => s.selectedIds.length === 1);
  return (
    <>
      <IconButton name="copy" label={TEXT.copy} color={BAR_TEXT} onPress={copy} testID="copy" />
      <IconButton
        name="trash"
        label={isOne ? TEXT.removeThisMark : TEXT.removeTheseMarks}
        color={BAR_TEXT}
        onPress={() => remove()}
        testID="remove-mark"
      />
    </>
  );
}

/** The rule for every page, another party, and the details of a single mark. */
function OfOne({ onDetails }: { onDetails: () => void }) {
  const { everyPageLikeThis, handTo } = useDeskActs();
  const selected = useDesk(selectedMarks);
  const parties = useDesk((s) => s.draft.parties);
  const one = selected.length === 1 ? itemAt(selected, 0) : null;
  const made = selected.some((m) => m.ruleId || m.redlineId);
  const others = parties.filter((x) => puts(x) && !selected.every((m) => m.partyId === x.id));
  return (
    <>
      {one?.kind === 'initials' && !made ? (
        <BarButton onPress={everyPageLikeThis} testID="every-page">
          {TEXT.everyPageLikeThis}
        </BarButton>
      ) : null}
      {others.length ? (
        <DropMenu
          anchor={(open) => (
            <BarButton onPress={open} testID="hand-to">
              {TEXT.giveTo}
            </BarButton>
          )}
        >
          {others.map((x) => (
            <MenuItem key={x.id} title={x.name} onPress={() => handTo(x.id)} />
          ))}
        </DropMenu>
      ) : null}
      {one && !made ? (
        <BarButton onPress={onDetails} testID="details">
          {TEXT.details}
        </BarButton>
      ) : null}
    </>
  );
}

/** Aligns, spaces and sizes several marks. */
function Arrange() {
  const { alignTo, spread, evenOut } = useDeskActs();
  return (
    <DropMenu
      anchor={(open) => (
        <BarButton onPress={open} testID="arrange">
          {TEXT.arrange}
        </BarButton>
      )}
    >
      <MenuItem title={TEXT.lineUpLeftEdges} onPress={() => alignTo('left')} />
      <MenuItem title={TEXT.lineUpRightEdges} onPress={() => alignTo('right')} />
      <MenuItem title={TEXT.lineUpTopEdges} onPress={() => alignTo('top')} />
      <MenuItem title={TEXT.lineUpOnOneLine} onPress={() => alignTo('bottom')} />
      <MenuItem title={TEXT.spaceEvenlyAcross} onPress={() => spread('across')} />
      <MenuItem title={TEXT.spaceEvenlyDown} onPress={() => spread('down')} />
      <MenuItem title={TEXT.sameSizeAsTheFirst} onPress={evenOut} />
    </DropMenu>
  );
}

/** Selects more marks of the page. */
function SelectMore() {
  const { gather, selectMany } = useDeskActs();
  const { selected, gathering } = useDesk((s) => ({ selected: s.selectedIds.length, gathering: isGathering(s) }));
  const here = useDesk((s) => {
    const at = positionOf(s);
    return at ? s.view.marks.filter((m) => m.documentId === at.documentId && m.page === at.page) : [];
  });
  return (
    <>
      {here.length > 1 ? (
        <BarButton onPress={() => gather(!gathering)} testID="gather">
          {gathering ? TEXT.enough : TEXT.selectMore}
        </BarButton>
      ) : null}
      {here.length > selected ? (
        <BarButton onPress={() => selectMany(here.map((m) => m.id))} testID="select-page">
          {TEXT.allOnThisPage}
        </BarButton>
      ) : null}
    </>
  );
}

/** "Repeat on pages 2 to 14." */
function RepeatBar({ onClose }: { onClose: () => void }) {
  const { repeat } = useDeskActs();
  const { page, last } = useDesk((s) => {
    const at = positionOf(s);
    const doc = s.view.documents.find((d) => d.id === at?.documentId);
    return { page: at?.page ?? 0, last: doc?.pages.length ?? 1 };
  });
  const [from, setFrom] = useState(String(Math.min(last, page + 1)));
  const [to, setTo] = useState(String(last));
  const a = Number(from);
  const b = Number(to);
  const fine = [a, b].every((n) => Number.isInteger(n) && n >= 1 && n <= last);
  return (
    <>
      <Body style={{ color: BAR_TEXT }}>{fine ? TEXT.repeatOnPages(from, to) : TEXT.pagesGoFrom(last)}</Body>
      <Row gap={8}>
        <Input
          label={TEXT.fromPage}
          value={from}
          onChangeText={setFrom}
          inputMode="numeric"
          dense
          style={{ flex: 1 }}
          testID="repeat-from"
        />
        <Input
          label={TEXT.toPage}
          value={to}
          onChangeText={setTo}
          inputMode="numeric"
          dense
          style={{ flex: 1 }}
          testID="repeat-to"
        />
        <Button
          kind="main"
          disabled={!fine}
          testID="repeat-now"
          onPress={() => {
            repeat(a, b);
            onClose();
          }}
        >
          {TEXT.repeat}
        </Button>
        <IconButton name="close" label={TEXT.doNotRepeat} color={BAR_TEXT} onPress={onClose} />
      </Row>
    </>
  );
}
