/** What the bars of the desk share. */
import { puts, calledOf } from '@gatepath/core/packet';
import { IconButton } from '../../ui/pieces';
import { slotToken } from '../../ui/slot-token';
import { Token } from '../../ui/token';
import { partyInHand } from './desk-state';
import { useDesk, useDeskActs } from './use-desk';
import { Radio, RadioGroup } from '../../ui/radio';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

/** The bar is dark in both themes: it lies over the paper and must look different. */
export const BAR = '#1E2A32';
export const BAR_SOFT = '#2F3C45';
export const BAR_TEXT = '#FBF8F3';

/** Undo and redo are always at the same end of the bar. */
export function UndoRedo({ isColumn = false }: { isColumn?: boolean }) {
  const { undo, redo, paste } = useDeskActs();
  const { canUndo, canRedo, canPaste } = useDesk((s) => ({
    canUndo: s.past.length > 0,
    canRedo: s.future.length > 0,
    canPaste: s.copied.length > 0,
  }));
  return (
    <Row align="stretch" style={isColumn ? { flexDirection: 'column' } : null}>
      {canPaste ? (
        <IconButton name="paste" label={TEXT.pasteOntoThisPage} color={BAR_TEXT} onPress={paste} testID="paste" />
      ) : null}
      <IconButton name="undo" label={TEXT.undo} color={BAR_TEXT} disabled={!canUndo} onPress={undo} testID="undo" />
      <IconButton name="redo" label={TEXT.redo} color={BAR_TEXT} disabled={!canRedo} onPress={redo} testID="redo" />
    </Row>
  );
}

/** Everyone who signs; choosing a person clears the selection, ready to place marks for them. */
export function PartyTokens({ isColumn = false }: { isColumn?: boolean }) {
  const { takeParty, select } = useDeskActs();
  const { signers, partyId } = useDesk((s) => ({ signers: s.draft.parties, partyId: partyInHand(s) }));
  return (
    <RadioGroup
      label={TEXT.whoseMark}
      value={partyId}
      onChange={takeParty}
      style={{ flexDirection: isColumn ? 'column' : 'row', gap: 4 }}
    >
      {signers.filter(puts).map((x) => {
        const on = x.id === partyId;
        return (
          <Radio
            key={x.id}
            value={x.id}
            label={x.name}
            testID={`take-${calledOf(x)}`}
            onPress={() => select(null)}
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
