/** A selected change: its words, and removing it with its initials. */
import { useWide } from '../../ui/hooks';
import { Input } from '../../ui/input';
import { IconButton } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { useState } from 'react';
import { BarButton } from './selection-bar';
import { BAR_TEXT, UndoRedo } from './bar-parts';
import { useDesk, useDeskActs } from './use-desk';
import { lastOf } from '@gatepath/core/sure';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function RedlineBar({ id }: { id: string }) {
  const { pickRedline, changeRedline, moveStrike, insert, removeRedline } = useDeskActs();
  const wide = useWide();
  const redline = useDesk((s) => s.draft.redlines.find((r) => r.id === id));
  const [text, setText] = useState<string | null>(null);
  const initials = useDesk((s) => s.view.marks.filter((m) => m.redlineId === id).length);
  if (!redline) return null;
  const shift = (dx: number, dy: number) => {
    const r = redline.rects[0];
    if (r) changeRedline(id, { rect: { ...r, x: r.x + dx, y: r.y + dy } });
  };
  return (
    <>
      <Row>
        <Body numberOfLines={2} grow style={{ color: BAR_TEXT, fontSize: 15 }}>
          {TEXT.toInitial(redline.kind === 'strike' ? TEXT.struck(redline.text) : TEXT.wordsPut, initials)}
        </Body>
        <IconButton name="close" label={TEXT.letGo} color={BAR_TEXT} onPress={() => pickRedline(null)} />
      </Row>
      {redline.kind === 'insert' ? (
        <Input
          label={TEXT.wordsPut}
          value={text ?? redline.text}
          onChangeText={setText}
          onBlur={() => {
            if (text?.trim() && text !== redline.text) changeRedline(id, { text: text.trim() });
            setText(null);
          }}
          testID="redline-text"
          dense
        />
      ) : null}
      {redline.kind === 'strike' ? (
        <Row gap={8} align="stretch" wrap>
          <BarButton onPress={() => moveStrike(id, { first: 0, last: 1 })} testID="strike-more">
            {TEXT.oneWordMore}
          </BarButton>
          <BarButton onPress={() => moveStrike(id, { first: 0, last: -1 })}>{TEXT.oneFewer}</BarButton>
          <BarButton onPress={() => moveStrike(id, { first: -1, last: -1 })}>{TEXT.aWordBack}</BarButton>
          <BarButton onPress={() => moveStrike(id, { first: 1, last: 1 })}>{TEXT.aWord}</BarButton>
        </Row>
      ) : null}
      <Row gap={8}>
        {redline.kind === 'strike' ? (
          <BarButton
            testID="insert-beside"
            onPress={() => {
              const last = lastOf(redline.rects);
              insert({ x: last.x, y: Math.max(4, last.y - 15), w: 150, h: 14 }, TEXT.newWords);
            }}
          >
            {TEXT.putWordsInAbove}
          </BarButton>
        ) : (
          <>
            <IconButton name="arrow-up" label={TEXT.moveUp} color={BAR_TEXT} onPress={() => shift(0, -3)} />
            <IconButton name="arrow-down" label={TEXT.moveDown} color={BAR_TEXT} onPress={() => shift(0, 3)} />
            <IconButton name="chevron-left" label={TEXT.moveLeft} color={BAR_TEXT} onPress={() => shift(-3, 0)} />
            <IconButton name="chevron-right" label={TEXT.moveRight} color={BAR_TEXT} onPress={() => shift(3, 0)} />
          </>
        )}
        <Stack grow />
        <IconButton
          name="trash"
          label={TEXT.removeTheChange}
          color={BAR_TEXT}
          onPress={() => removeRedline(id)}
          testID="drop-redline"
        />
        {wide ? null : <UndoRedo />}
      </Row>
    </>
  );
}
