/** What the bars of the desk share. */
import { puts, calledOf } from '@gatepath/core/packet';
import { IconButton } from '../../ui/pieces';
import { slotToken } from '../../ui/slot-token';
import { Token } from '../../ui/token';
import type { Desk } from './use-desk';
import { Radio, RadioGroup } from '../../ui/radio';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

/** The bar is dark in both themes: it lies over the paper and must look different. */
export const BAR = '#1E2A32';
export const BAR_SOFT = '#2F3C45';
export const BAR_TEXT = '#FBF8F3';

/** Undo and redo are always at the same end of the bar. */
export function UndoRedo({ desk }: { desk: Desk }) {
  return (
    <Row align="stretch">
      {desk.copied.length ? (
        <IconButton name="paste" label={TEXT.pasteOntoThisPage} color={BAR_TEXT} onPress={desk.paste} testID="paste" />
      ) : null}
      <IconButton
        name="undo"
        label={TEXT.undo}
        color={BAR_TEXT}
        disabled={!desk.canUndo}
        onPress={desk.undo}
        testID="undo"
      />
      <IconButton
        name="redo"
        label={TEXT.redo}
        color={BAR_TEXT}
        disabled={!desk.canRedo}
        onPress={desk.redo}
        testID="redo"
      />
    </Row>
  );
}

/** Everyone who signs; choosing a person clears the selection, ready to place marks for them. */
export function PartyTokens({ desk }: { desk: Desk }) {
  return (
    <RadioGroup
      label={TEXT.whoseMark}
      value={desk.partyId}
      onChange={desk.takeParty}
      style={{ flexDirection: 'row', gap: 4 }}
    >
      {desk.draft.parties.filter(puts).map((x) => {
        const on = x.id === desk.partyId;
        return (
          <Radio
            key={x.id}
            value={x.id}
            label={x.name}
            testID={`take-${calledOf(x)}`}
            onPress={() => desk.select(null)}
            style={{
              width: 50,
              height: 50,
              borderRadius: 12,
              alignItems: 'center',
              justifyContent: 'center',
              borderWidth: 2,
              borderColor: on ? BAR_TEXT : 'transparent',
              backgroundColor: on ? '#46525A' : 'transparent',
            }}
          >
            <Token name={x.name} letters={slotToken(x)} ink={x.ink} size={34} />
          </Radio>
        );
      })}
    </RadioGroup>
  );
}
