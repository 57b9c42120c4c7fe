/** Acts on the selected marks. */
import { KINDS, NOBODY, puts, calledOf } from '@gatepath/core/packet';
import { useState } from 'react';
import { ScrollView } from 'react-native';
import { count } from '@gatepath/core/text';
import { Input } from '../../ui/input';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button, IconButton } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { BAR_TEXT, PartyTokens, UndoRedo } from './bar-parts';
import type { Desk } from './use-desk';
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

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function SelectionBar({ desk, onDetails }: { desk: Desk; onDetails: () => void }) {
  const [repeating, setRepeating] = useState(false);
  const { selected, draft } = desk;
  const one = selected.length === 1 ? itemAt(selected, 0) : null;
  const party = one && draft.parties.find((x) => x.id === one.partyId);
  const made = selected.some((m) => m.ruleId || m.redlineId);
  const words =
    one && !desk.gathering
      ? one.partyId === NOBODY || !party
        ? TEXT.labelDragItOrDrag
        : TEXT.sDragItOrDrag(calledOf(party), KINDS[one.kind].word)
      : desk.gathering
        ? TEXT.selectedTapMoreOfThem(count(selected.length, 'mark'))
        : TEXT.selected(count(selected.length, 'mark'));
  const others = draft.parties.filter((x) => puts(x) && !selected.every((m) => m.partyId === x.id));
  const here = desk.at
    ? desk.view.marks.filter((m) => m.documentId === desk.at!.documentId && m.page === desk.at!.page)
    : [];
  if (repeating) return <RepeatBar desk={desk} onClose={() => setRepeating(false)} />;
  return (
    <>
      <Row>
        <Body grow style={{ color: BAR_TEXT, fontSize: 15 }}>
          {words}
        </Body>
        <IconButton
          name="close"
          label={TEXT.letGo}
          color={BAR_TEXT}
          onPress={() => desk.select(null)}
          testID="let-go"
        />
      </Row>
      <ScrollView horizontal showsHorizontalScrollIndicator={false}>
        <PartyTokens desk={desk} />
      </ScrollView>
      {/* One row that scrolls: the page behind the bar is what matters on a phone. */}
      <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={{ gap: 8 }}>
        <BarButton onPress={() => setRepeating(true)} testID="repeat">
          {TEXT.repeat}
        </BarButton>
        {one?.kind === 'initials' && !made ? (
          <BarButton onPress={desk.everyPageLikeThis} testID="every-page">
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
              <MenuItem key={x.id} title={x.name} onPress={() => desk.handTo(x.id)} />
            ))}
          </DropMenu>
        ) : null}
        {one && !made ? (
          <BarButton onPress={onDetails} testID="details">
            {TEXT.details2}
          </BarButton>
        ) : null}
        {selected.length > 1 ? (
          <DropMenu
            anchor={(open) => (
              <BarButton onPress={open} testID="arrange">
                {TEXT.arrange}
              </BarButton>
            )}
          >
            <MenuItem title={TEXT.lineUpLeftEdges} onPress={() => desk.alignTo('left')} />
            <MenuItem title={TEXT.lineUpRightEdges} onPress={() => desk.alignTo('right')} />
            <MenuItem title={TEXT.lineUpTopEdges} onPress={() => desk.alignTo('top')} />
            <MenuItem title={TEXT.lineUpOnOneLine} onPress={() => desk.alignTo('bottom')} />
            <MenuItem title={TEXT.spaceEvenlyAcross} onPress={() => desk.spread('across')} />
            <MenuItem title={TEXT.spaceEvenlyDown} onPress={() => desk.spread('down')} />
            <MenuItem title={TEXT.sameSizeAsTheFirst} onPress={desk.evenOut} />
          </DropMenu>
        ) : null}
        {here.length > 1 ? (
          <BarButton onPress={() => desk.gather(!desk.gathering)} testID="gather">
            {desk.gathering ? TEXT.enough : TEXT.selectMore}
          </BarButton>
        ) : null}
        {here.length > selected.length ? (
          <BarButton onPress={() => desk.selectMany(here.map((m) => m.id))} testID="select-page">
            {TEXT.allOnThisPage}
          </BarButton>
        ) : null}
      </ScrollView>
      <Row style={{ minHeight: 46 }}>
        <IconButton name="copy" label={TEXT.copy} color={BAR_TEXT} onPress={desk.copy} testID="copy" />
        <IconButton
          name="trash"
          label={one ? TEXT.removeThisMark : TEXT.removeTheseMarks}
          color={BAR_TEXT}
          onPress={() => desk.remove()}
          testID="remove-mark"
        />
        <Stack grow />
        <UndoRedo desk={desk} />
      </Row>
    </>
  );
}

/** "Repeat on pages 2 to 14." */
function RepeatBar({ desk, onClose }: { desk: Desk; onClose: () => void }) {
  const doc = desk.view.documents.find((d) => d.id === desk.at?.documentId);
  const last = doc?.pages.length ?? 1;
  const [from, setFrom] = useState(String(Math.min(last, (desk.at?.page ?? 0) + 1)));
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
            desk.repeat(a, b);
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
