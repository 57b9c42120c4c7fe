/** A selected change: its words, and removing it with its initials. */
import { Input } from '../../ui/input';
import { IconButton } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { useState } from 'react';
import { BarButton } from './selection-bar';
import { BAR_TEXT, UndoRedo } from './bar-parts';
import type { Desk } from './use-desk';
import { lastOf } from '@gatepath/core/sure';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function RedlineBar({ desk, id }: { desk: Desk; id: string }) {
  const redline = desk.draft.redlines.find((r) => r.id === id)!;
  const [text, setText] = useState<string | null>(null);
  const initials = desk.view.marks.filter((m) => m.redlineId === id).length;
  return (
    <>
      <Row>
        <Body numberOfLines={2} grow style={{ color: BAR_TEXT, fontSize: 15 }}>
          {TEXT.toInitial(redline.kind === 'strike' ? TEXT.struck(redline.text) : TEXT.wordsPut, initials)}
        </Body>
        <IconButton name="close" label={TEXT.letGo} color={BAR_TEXT} onPress={() => desk.pickRedline(null)} />
      </Row>
      {redline.kind === 'insert' ? (
        <Input
          label={TEXT.wordsPut}
          value={text ?? redline.text}
          onChangeText={setText}
          onBlur={() => {
            if (text?.trim() && text !== redline.text) desk.changeRedline(id, { text: text.trim() });
            setText(null);
          }}
          testID="redline-text"
          dense
        />
      ) : null}
      {redline.kind === 'strike' ? (
        <Row gap={8} align="stretch" wrap>
          <BarButton onPress={() => desk.moveStrike(id, { first: 0, last: 1 })} testID="strike-more">
            {TEXT.oneWordMore}
          </BarButton>
          <BarButton onPress={() => desk.moveStrike(id, { first: 0, last: -1 })}>{TEXT.oneFewer}</BarButton>
          <BarButton onPress={() => desk.moveStrike(id, { first: -1, last: -1 })}>{TEXT.aWordBack}</BarButton>
          <BarButton onPress={() => desk.moveStrike(id, { first: 1, last: 1 })}>{TEXT.aWord}</BarButton>
        </Row>
      ) : null}
      <Row gap={8}>
        {redline.kind === 'strike' ? (
          <BarButton
            testID="insert-beside"
            onPress={() => {
              const last = lastOf(redline.rects);
              desk.insert({ x: last.x, y: Math.max(4, last.y - 15), w: 150, h: 14 }, TEXT.newWords);
            }}
          >
            {TEXT.putWordsInAbove}
          </BarButton>
        ) : (
          <>
            <IconButton name="arrow-up" label={TEXT.moveUp} color={BAR_TEXT} onPress={() => shift(desk, id, 0, -3)} />
            <IconButton
              name="arrow-down"
              label={TEXT.moveDown}
              color={BAR_TEXT}
              onPress={() => shift(desk, id, 0, 3)}
            />
            <IconButton
              name="chevron-left"
              label={TEXT.moveLeft}
              color={BAR_TEXT}
              onPress={() => shift(desk, id, -3, 0)}
            />
            <IconButton
              name="chevron-right"
              label={TEXT.moveRight}
              color={BAR_TEXT}
              onPress={() => shift(desk, id, 3, 0)}
            />
          </>
        )}
        <Stack grow />
        <IconButton
          name="trash"
          label={TEXT.removeTheChange}
          color={BAR_TEXT}
          onPress={() => desk.removeRedline(id)}
          testID="drop-redline"
        />
        <UndoRedo desk={desk} />
      </Row>
    </>
  );
}

function shift(desk: Desk, id: string, dx: number, dy: number): void {
  const r = desk.draft.redlines.find((x) => x.id === id)?.rects[0];
  if (r) desk.changeRedline(id, { rect: { ...r, x: r.x + dx, y: r.y + dy } });
}
