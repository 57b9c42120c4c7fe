/** The chosen party and tool; if marks or a printed place are selected, what can be done with them. */
import { MARK_KINDS, KINDS, isSenders, puts, calledOf } from '@gatepath/core/packet';
import { ScrollView, View } from 'react-native';
import { Icon } from '../../ui/icon';
import { useWide } from '../../ui/hooks';
import { Button } from '../../ui/pieces';
import { Body } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { BAR, BAR_SOFT, BAR_TEXT, PartyTokens, UndoRedo } from './bar-parts';
import { ProposalBar } from './proposal-bar';
import { RedlineBar } from './redline-bar';
import { SelectionBar } from './selection-bar';
import type { Tool } from './mark-acts';
import type { Desk } from './use-desk';
import { Radio, RadioGroup } from '../../ui/radio';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

const TOOLS: { tool: Tool; word: string }[] = [
  ...MARK_KINDS.map((k) => ({ tool: k, word: KINDS[k].word })),
  { tool: 'strike', word: TEXT.strikeWords },
  { tool: 'insert', word: TEXT.putWordsIn },
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
    <Stack gap={8} style={{ backgroundColor: BAR, borderTopLeftRadius: 18, borderTopRightRadius: 18, padding: 12 }}>
      {inner}
      <View role="status" aria-live="polite" style={{ position: 'absolute', width: 1, height: 1, overflow: 'hidden' }}>
        <Body>{desk.said}</Body>
      </View>
    </Stack>
  );
}

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function Tools({ desk }: { desk: Desk }) {
  const wide = useWide();
  const signers = desk.draft.parties.filter(puts);
  const inHand = signers.find((x) => x.id === desk.partyId);
  const rule = desk.at ? desk.draft.rules.find((r) => r.documentId === desk.at!.documentId) : undefined;
  const ruled = !!inHand && !!rule?.partyIds.includes(inHand.id);
  const hint =
    desk.tool === 'strike'
      ? TEXT.dragOverTheWordsTo
      : desk.tool === 'insert'
        ? TEXT.tapThePageWhereWords
        : isSenders(desk.tool)
          ? TEXT.tapToPlaceLabel
          : inHand
            ? TEXT.tapToPlaceMark(calledOf(inHand), KINDS[desk.tool].word)
            : TEXT.noOneInThisPacket;
  const tokens = <PartyTokens desk={desk} />;
  const everyPage =
    desk.tool !== 'initials' || !inHand ? null : ruled ? (
      <Row gap={8} style={{ minHeight: 46, flexShrink: 1 }}>
        <Icon name="check" color={BAR_TEXT} size={20} />
        <Body style={{ color: BAR_TEXT, flexShrink: 1 }}>{TEXT.initialsEveryPageOf(calledOf(inHand))}</Body>
      </Row>
    ) : (
      <Button kind="main" onPress={desk.everyPageLikeThis} testID="every-page" style={{ flexShrink: 1 }}>
        {TEXT.everyPage}
      </Button>
    );
  return (
    <>
      <Body style={{ color: BAR_TEXT, fontSize: 15 }}>{hint}</Body>
      {wide ? (
        <Row gap={12}>
          <ScrollView horizontal showsHorizontalScrollIndicator={false} style={{ flex: 1 }}>
            {tokens}
          </ScrollView>
          {everyPage}
          <UndoRedo desk={desk} />
        </Row>
      ) : (
        <ScrollView horizontal showsHorizontalScrollIndicator={false}>
          {tokens}
        </ScrollView>
      )}
      <ScrollView horizontal showsHorizontalScrollIndicator={wide}>
        <RadioGroup
          label={TEXT.whichTool}
          value={desk.tool}
          onChange={(v) => {
            const taken = TOOLS.find((t) => t.tool === v);
            if (taken) desk.takeTool(taken.tool);
          }}
          style={{ flexDirection: 'row', gap: 6 }}
        >
          {TOOLS.map(({ tool, word }) => {
            const on = tool === desk.tool;
            return (
              <Radio
                key={tool}
                value={tool}
                label={word}
                testID={`kind-${tool}`}
                style={{
                  minHeight: 44,
                  paddingHorizontal: 14,
                  borderRadius: 10,
                  justifyContent: 'center',
                  backgroundColor: on ? BAR_TEXT : BAR_SOFT,
                }}
              >
                <Body style={{ color: on ? BAR : BAR_TEXT, fontFamily: on ? FONT.bold : FONT.text }}>{word}</Body>
              </Radio>
            );
          })}
        </RadioGroup>
      </ScrollView>
      {wide ? null : (
        <Row gap={8} style={{ minHeight: 46 }}>
          <Row align="stretch" grow>
            {everyPage}
          </Row>
          <UndoRedo desk={desk} />
        </Row>
      )}
    </>
  );
}
