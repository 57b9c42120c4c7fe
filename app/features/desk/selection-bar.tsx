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

/** Returns what is selected, in words, and what can be done with it. */
function wordsOf({ draft, selected, gathering }: Desk): string {
  const [one, ...more] = selected;
  if (gathering) return TEXT.selectedTapMoreOfThem(count(selected.length, 'mark'));
  if (!one || more.length) return TEXT.selected(count(selected.length, 'mark'));
  const party = draft.parties.find((x) => x.id === one.partyId);
  return one.partyId === NOBODY || !party
    ? TEXT.labelDragItOrDrag
    : TEXT.sDragItOrDrag(calledOf(party), KINDS[one.kind].word);
}

export function SelectionBar({ desk, onDetails }: { desk: Desk; onDetails: () => void }) {
  const [repeating, setRepeating] = useState(false);
  const { selected } = desk;
  if (repeating) return <RepeatBar desk={desk} onClose={() => setRepeating(false)} />;
  return (
    <>
      <Row>
        <Body grow style={{ color: BAR_TEXT, fontSize: 15 }}>
          {wordsOf(desk)}
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
        <OfOne desk={desk} onDetails={onDetails} />
        {selected.length > 1 ? <Arrange desk={desk} /> : null}
        <SelectMore desk={desk} />
      </ScrollView>
      <Row style={{ minHeight: 46 }}>
        <IconButton name="copy" label={TEXT.copy} color={BAR_TEXT} onPress={desk.copy} testID="copy" />
        <IconButton
          name="trash"
          label={selected.length === 1 ? TEXT.removeThisMark : TEXT.removeTheseMarks}
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

/** The rule for every page, another party, and the details of a single mark. */
function OfOne({ desk, onDetails }: { desk: Desk; onDetails: () => void }) {
  const { selected, draft } = desk;
  const one = selected.length === 1 ? itemAt(selected, 0) : null;
  const made = selected.some((m) => m.ruleId || m.redlineId);
  const others = draft.parties.filter((x) => puts(x) && !selected.every((m) => m.partyId === x.id));
  return (
    <>
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
          {TEXT.details}
        </BarButton>
      ) : null}
    </>
  );
}

/** Aligns, spaces and sizes several marks. */
function Arrange({ desk }: { desk: Desk }) {
  return (
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
  );
}

/** Selects more marks of the page. */
function SelectMore({ desk }: { desk: Desk }) {
  const { at, view, selected } = desk;
  const here = at ? view.marks.filter((m) => m.documentId === at.documentId && m.page === at.page) : [];
  return (
    <>
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
