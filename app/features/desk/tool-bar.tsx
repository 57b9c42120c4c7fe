/** What is in hand: a party and a tool; or, when marks or a printed place are, what can be done with them. */
import { puts } from '@gatepath/core/routing';
import { Pressable, ScrollView, View } from 'react-native';
import { MARK_KINDS, MARK_WORDS } from '@gatepath/core/marks';
import { firstName } from '@gatepath/core/text';
import { Icon } from '../../ui/icon';
import { useWide } from '../../ui/hooks';
import { Button, IconButton } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { Token } from '../../ui/token';
import { FONT } from '../../ui/theme';
import { ProposalBar } from './proposal-bar';
import { RedlineBar } from './redline-bar';
import { SelectionBar } from './selection-bar';
import type { Desk, Tool } from './use-desk';

/** The bar is dark in both themes: it lies over the paper and must not be taken for it. */
export const BAR = '#1E2A32';
export const BAR_SOFT = '#2F3C45';
export const BAR_TEXT = '#FBF8F3';

const TOOLS: { tool: Tool; word: string }[] = [
  ...MARK_KINDS.map((k) => ({ tool: k, word: MARK_WORDS[k] })),
  { tool: 'strike', word: 'strike words' },
  { tool: 'insert', word: 'put words in' },
];

export function ToolBar({ desk, onDetails }: { desk: Desk; onDetails: () => void }) {
  const inner = desk.selected.length ? (
    <SelectionBar desk={desk} onDetails={onDetails} />
  ) : desk.proposal ? (
    <ProposalBar desk={desk} proposal={desk.proposal} />
  ) : desk.redlineId ? (
    <RedlineBar desk={desk} id={desk.redlineId} />
  ) : (
    <Tools desk={desk} />
  );
  return (
    <View style={{ backgroundColor: BAR, borderTopLeftRadius: 18, borderTopRightRadius: 18, padding: 12, gap: 8 }}>
      {inner}
      <View role="status" aria-live="polite" style={{ position: 'absolute', width: 1, height: 1, overflow: 'hidden' }}>
        <Body>{desk.said}</Body>
      </View>
    </View>
  );
}

/** Undo and redo are always at the same end of the bar. */
export function UndoRedo({ desk }: { desk: Desk }) {
  return (
    <View style={{ flexDirection: 'row' }}>
      {desk.copied.length ? (
        <IconButton name="paste" label="Paste onto this page" color={BAR_TEXT} onPress={desk.paste} testID="paste" />
      ) : null}
      <IconButton
        name="undo"
        label="Undo"
        color={BAR_TEXT}
        disabled={!desk.canUndo}
        onPress={desk.undo}
        testID="undo"
      />
      <IconButton
        name="redo"
        label="Redo"
        color={BAR_TEXT}
        disabled={!desk.canRedo}
        onPress={desk.redo}
        testID="redo"
      />
    </View>
  );
}

/** Everybody who signs; taking somebody lets go of what is in hand, ready to place for them. */
export function PartyTokens({ desk }: { desk: Desk }) {
  return (
    <View role="radiogroup" aria-label="Whose mark" style={{ flexDirection: 'row', gap: 4 }}>
      {desk.draft.parties.filter(puts).map((x) => {
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
}

function Tools({ desk }: { desk: Desk }) {
  const wide = useWide();
  const signers = desk.draft.parties.filter(puts);
  const inHand = signers.find((x) => x.id === desk.partyId);
  const rule = desk.at ? desk.draft.rules.find((r) => r.documentId === desk.at!.documentId) : undefined;
  const ruled = !!inHand && !!rule?.partyIds.includes(inHand.id);
  const hint =
    desk.tool === 'strike'
      ? 'Draw over the words to strike. Everybody who signs initials it.'
      : desk.tool === 'insert'
        ? 'Touch the page where words go in. Everybody who signs initials it.'
        : desk.tool === 'label'
          ? 'Touch the page to place a label'
          : inHand
            ? `Touch the page to place ${firstName(inHand.name)}’s ${MARK_WORDS[desk.tool]}`
            : 'Nobody in this packet signs yet. Add people under Path.';
  const tokens = <PartyTokens desk={desk} />;
  const everyPage =
    desk.tool !== 'initials' || !inHand ? null : ruled ? (
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6, minHeight: 46, flexShrink: 1 }}>
        <Icon name="check" color={BAR_TEXT} size={20} />
        <Body style={{ color: BAR_TEXT, flexShrink: 1 }}>{`${firstName(inHand.name)} initials every page`}</Body>
      </View>
    ) : (
      <Button kind="main" onPress={desk.everyPageLikeThis} testID="every-page" style={{ flexShrink: 1 }}>
        Every page
      </Button>
    );
  return (
    <>
      <Body style={{ color: BAR_TEXT, fontSize: 15 }}>{hint}</Body>
      {wide ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
          <ScrollView horizontal showsHorizontalScrollIndicator={false} style={{ flex: 1 }}>
            {tokens}
          </ScrollView>
          {everyPage}
          <UndoRedo desk={desk} />
        </View>
      ) : (
        <ScrollView horizontal showsHorizontalScrollIndicator={false}>
          {tokens}
        </ScrollView>
      )}
      <ScrollView horizontal showsHorizontalScrollIndicator={wide}>
        <View role="radiogroup" aria-label="Which tool" style={{ flexDirection: 'row', gap: 6 }}>
          {TOOLS.map(({ tool, word }) => {
            const on = tool === desk.tool;
            return (
              <Pressable
                key={tool}
                role="radio"
                aria-checked={on}
                testID={`kind-${tool}`}
                onPress={() => desk.takeTool(tool)}
                style={{
                  minHeight: 44,
                  paddingHorizontal: 14,
                  borderRadius: 10,
                  justifyContent: 'center',
                  backgroundColor: on ? BAR_TEXT : BAR_SOFT,
                }}
              >
                <Body style={{ color: on ? BAR : BAR_TEXT, fontFamily: on ? FONT.bold : FONT.text }}>{word}</Body>
              </Pressable>
            );
          })}
        </View>
      </ScrollView>
      {wide ? null : (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 46 }}>
          <View style={{ flex: 1, flexDirection: 'row' }}>{everyPage}</View>
          <UndoRedo desk={desk} />
        </View>
      )}
    </>
  );
}
