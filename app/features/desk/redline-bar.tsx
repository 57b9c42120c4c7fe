/** A change in hand: its words, and taking it away with its initials. */
import { View } from 'react-native';
import { Input } from '../../ui/input';
import { IconButton } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { useState } from 'react';
import { BarButton } from './selection-bar';
import { BAR_TEXT, UndoRedo } from './bar-parts';
import type { Desk } from './use-desk';
import { lastOf } from '@gatepath/core/sure';

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function RedlineBar({ desk, id }: { desk: Desk; id: string }) {
  const redline = desk.draft.redlines.find((r) => r.id === id)!;
  const [text, setText] = useState<string | null>(null);
  const initials = desk.view.marks.filter((m) => m.redlineId === id).length;
  return (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Body numberOfLines={2} style={{ color: BAR_TEXT, fontSize: 15, flex: 1 }}>
          {`${redline.kind === 'strike' ? `Struck: “${redline.text}”` : 'Words put in'}. ${initials} to initial it.`}
        </Body>
        <IconButton name="close" label="Let go" color={BAR_TEXT} onPress={() => desk.pickRedline(null)} />
      </View>
      {redline.kind === 'insert' ? (
        <Input
          label="Words put in"
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
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <BarButton onPress={() => desk.moveStrike(id, { first: 0, last: 1 })} testID="strike-more">
            One word more
          </BarButton>
          <BarButton onPress={() => desk.moveStrike(id, { first: 0, last: -1 })}>One fewer</BarButton>
          <BarButton onPress={() => desk.moveStrike(id, { first: -1, last: -1 })}>A word back</BarButton>
          <BarButton onPress={() => desk.moveStrike(id, { first: 1, last: 1 })}>A word on</BarButton>
        </View>
      ) : null}
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        {redline.kind === 'strike' ? (
          <BarButton
            testID="insert-beside"
            onPress={() => {
              const last = lastOf(redline.rects);
              desk.insert({ x: last.x, y: Math.max(4, last.y - 15), w: 150, h: 14 }, 'New words');
            }}
          >
            Put words in above
          </BarButton>
        ) : (
          <>
            <IconButton name="arrow-up" label="Move up" color={BAR_TEXT} onPress={() => shift(desk, id, 0, -3)} />
            <IconButton name="arrow-down" label="Move down" color={BAR_TEXT} onPress={() => shift(desk, id, 0, 3)} />
            <IconButton name="chevron-left" label="Move left" color={BAR_TEXT} onPress={() => shift(desk, id, -3, 0)} />
            <IconButton
              name="chevron-right"
              label="Move right"
              color={BAR_TEXT}
              onPress={() => shift(desk, id, 3, 0)}
            />
          </>
        )}
        <View style={{ flex: 1 }} />
        <IconButton
          name="trash"
          label="Remove the change"
          color={BAR_TEXT}
          onPress={() => desk.removeRedline(id)}
          testID="drop-redline"
        />
        <UndoRedo desk={desk} />
      </View>
    </>
  );
}

function shift(desk: Desk, id: string, dx: number, dy: number): void {
  const r = desk.draft.redlines.find((x) => x.id === id)?.rects[0];
  if (r) desk.changeRedline(id, { rect: { ...r, x: r.x + dx, y: r.y + dy } });
}
