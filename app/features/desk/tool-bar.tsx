/** What is in hand: a party, a kind, and what can be done with the mark that is selected. */
import { Pressable, ScrollView, View } from 'react-native';
import { MARK_KINDS, MARK_WORDS, type MarkKind } from '@gatepath/core/marks';
import { firstName } from '@gatepath/core/text';
import { Icon } from '../../ui/icon';
import { useWide } from '../../ui/hooks';
import { Button, IconButton } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { Token } from '../../ui/token';
import { FONT } from '../../ui/theme';
import type { Desk } from './use-desk';

/** The bar is dark in both themes: it lies over the paper and must not be taken for it. */
const BAR = '#1E2A32';
const BAR_SOFT = '#2F3C45';
const BAR_TEXT = '#FBF8F3';

export function ToolBar({ desk }: { desk: Desk }) {
  const wide = useWide();
  const signers = desk.draft.parties.filter((x) => x.act === 'sign');
  const inHand = signers.find((x) => x.id === desk.partyId);
  const rule = desk.at ? desk.draft.rules.find((r) => r.documentId === desk.at!.documentId) : undefined;
  const ruled = !!inHand && !!rule?.partyIds.includes(inHand.id);
  const hint = desk.selected
    ? `${firstName(desk.draft.parties.find((x) => x.id === desk.selected!.partyId)?.name ?? '')}’s ${MARK_WORDS[desk.selected.kind]}: drag it, or stretch its corner`
    : inHand
      ? `Touch the page to place ${firstName(inHand.name)}’s ${MARK_WORDS[desk.kind]}`
      : 'Nobody in this packet signs yet. Add people under Path.';
  const tokens = (
    <View role="radiogroup" aria-label="Whose mark" style={{ flexDirection: 'row', gap: 4 }}>
      {signers.map((x) => {
        const on = x.id === desk.partyId;
        return (
          <Pressable
            key={x.id}
            role="radio"
            aria-checked={on}
            aria-label={x.name}
            testID={`take-${firstName(x.name)}`}
            onPress={() => {
              desk.takeParty(x.id);
              desk.select(null);
            }}
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
            <Token name={x.name} ink={x.ink} size={34} />
          </Pressable>
        );
      })}
    </View>
  );
  const kinds = (
    <View role="radiogroup" aria-label="Which mark" style={{ flexDirection: 'row', gap: 6 }}>
      {MARK_KINDS.map((k) => (
        <KindButton key={k} kind={k} on={k === desk.kind} onPress={() => desk.takeKind(k)} />
      ))}
    </View>
  );
  const remove = desk.selected ? (
    <IconButton
      name="trash"
      label="Remove this mark"
      color={BAR_TEXT}
      onPress={() => desk.deleteMark(desk.selected!)}
      testID="remove-mark"
    />
  ) : null;
  const undo = (
    <IconButton name="undo" label="Undo" color={BAR_TEXT} disabled={!desk.canUndo} onPress={desk.undo} testID="undo" />
  );
  const everyPage =
    desk.kind !== 'initials' || !inHand ? null : ruled && !desk.selected ? (
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6, minHeight: 46 }}>
        <Icon name="check" color={BAR_TEXT} size={20} />
        <Body style={{ color: BAR_TEXT }}>{`${firstName(inHand.name)} initials every page`}</Body>
      </View>
    ) : (
      <Button kind="main" onPress={desk.everyPageLikeThis} testID="every-page" style={{ flexShrink: 1 }}>
        Every page, like this
      </Button>
    );
  return (
    <View style={{ backgroundColor: BAR, borderTopLeftRadius: 18, borderTopRightRadius: 18, padding: 12, gap: 8 }}>
      <Body style={{ color: BAR_TEXT, fontSize: 15 }}>{hint}</Body>
      {wide ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
          {tokens}
          <View style={{ flex: 1 }} />
          {everyPage}
          {remove}
          {undo}
        </View>
      ) : (
        <ScrollView horizontal showsHorizontalScrollIndicator={false}>
          {tokens}
        </ScrollView>
      )}
      <ScrollView horizontal showsHorizontalScrollIndicator={false}>
        {kinds}
      </ScrollView>
      {wide ? null : (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 46 }}>
          <View style={{ flex: 1 }}>{everyPage}</View>
          {remove}
          {undo}
        </View>
      )}
    </View>
  );
}

function KindButton({ kind, on, onPress }: { kind: MarkKind; on: boolean; onPress: () => void }) {
  return (
    <Pressable
      role="radio"
      aria-checked={on}
      testID={`kind-${kind}`}
      onPress={onPress}
      style={{
        minHeight: 44,
        paddingHorizontal: 14,
        borderRadius: 10,
        justifyContent: 'center',
        backgroundColor: on ? BAR_TEXT : BAR_SOFT,
      }}
    >
      <Body style={{ color: on ? BAR : BAR_TEXT, fontFamily: on ? FONT.bold : FONT.text }}>{MARK_WORDS[kind]}</Body>
    </Pressable>
  );
}
