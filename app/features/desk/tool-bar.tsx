/** The tools: a rail beside the page on a wide screen, one line under it on a phone. */
import { calledOf } from '@gatepath/core/packet';
import { useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { Icon } from '../../ui/icon';
import { Button } from '../../ui/pieces';
import { Body, Small } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { slotToken } from '../../ui/slot-token';
import { Token } from '../../ui/token';
import { BAR, BAR_SOFT, BAR_TEXT, PartyTokens, UndoRedo } from './bar-parts';
import { partyInHand, positionOf, proposalInHand, redlineInHand } from './desk-state';
import { ProposalBar } from './proposal-bar';
import { RedlineBar } from './redline-bar';
import { SelectionBar } from './selection-bar';
import { hintOf, TOOLS, USUAL_TOOLS, type ToolEntry } from './tools';
import { useDesk, useDeskActs } from './use-desk';
import { Radio, RadioGroup } from '../../ui/radio';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** Width of the rail in pixels. */
const RAIL = 68;

/** What the last act did, for screen readers. */
function Said() {
  const said = useDesk((s) => s.said);
  return (
    <View role="status" aria-live="polite" style={{ position: 'absolute', width: 1, height: 1, overflow: 'hidden' }}>
      <Body>{said}</Body>
    </View>
  );
}

/** Returns what is selected: marks, a printed place, a change, or nothing. */
const useInHand = () =>
  useDesk((s) => ({
    marks: s.selectedIds.some((id) => s.view.marks.some((m) => m.id === id)),
    proposal: proposalInHand(s),
    redlineId: redlineInHand(s),
  }));

/** What can be done with what is selected; nothing while nothing is. */
function InHand({ onDetails }: { onDetails: () => void }) {
  const { marks, proposal, redlineId } = useInHand();
  if (marks) return <SelectionBar onDetails={onDetails} />;
  if (proposal) return <ProposalBar proposal={proposal} />;
  return redlineId ? <RedlineBar id={redlineId} /> : null;
}

/** Under the page of a wide screen: what can be done with what is selected. */
export function WideBar({ onDetails }: { onDetails: () => void }) {
  const { marks, proposal, redlineId } = useInHand();
  return marks || proposal || redlineId ? (
    <Stack gap={8} style={{ backgroundColor: BAR, padding: 8, paddingHorizontal: 12 }}>
      <InHand onDetails={onDetails} />
    </Stack>
  ) : null;
}

/** Beside the page of a wide screen: whose mark, and which tool. */
export function ToolRail() {
  return (
    <Stack gap={4} style={{ width: RAIL, backgroundColor: BAR, padding: 6 }} testID="tool-rail">
      <ScrollView showsVerticalScrollIndicator={false} contentContainerStyle={{ alignItems: 'center', gap: 8 }}>
        <PartyTokens isColumn />
        <View style={{ width: 44, height: 1, backgroundColor: BAR_SOFT }} />
        <Tools isColumn />
      </ScrollView>
      <Stack align="center">
        <UndoRedo isColumn />
      </Stack>
      <Said />
    </Stack>
  );
}

/** Under the page of a phone: one line while reading; the tools when it is touched. */
export function ToolBar({ onDetails }: { onDetails: () => void }) {
  const { marks, proposal, redlineId } = useInHand();
  const [open, setOpen] = useState(false);
  return (
    <Stack gap={8} style={{ backgroundColor: BAR, paddingHorizontal: 12, paddingVertical: 6 }}>
      {marks || proposal || redlineId ? (
        <InHand onDetails={onDetails} />
      ) : (
        <>
          {open ? (
            <>
              <ScrollView horizontal showsHorizontalScrollIndicator={false}>
                <PartyTokens />
              </ScrollView>
              <ScrollView horizontal showsHorizontalScrollIndicator={false}>
                <Tools onTaken={() => setOpen(false)} />
              </ScrollView>
              <EveryPage />
            </>
          ) : null}
          <OneLine open={open} onTurn={() => setOpen((x) => !x)} />
        </>
      )}
      <Said />
    </Stack>
  );
}

/** What touching the page does; touching the line shows the tools. */
function OneLine({ open, onTurn }: { open: boolean; onTurn: () => void }) {
  const { party, hint } = useDesk((s) => ({
    party: s.draft.parties.find((x) => x.id === partyInHand(s)),
    hint: hintOf(s),
  }));
  return (
    <Row gap={8}>
      <Pressable
        role="button"
        aria-expanded={open}
        aria-label={`${hint}. ${TEXT.changePersonOrTool}`}
        onPress={onTurn}
        testID="tools"
        style={{ flex: 1, minHeight: 48, flexDirection: 'row', alignItems: 'center', gap: 8 }}
      >
        {party ? <Token name={party.name} letters={slotToken(party)} ink={party.ink} size={30} /> : null}
        <Body numberOfLines={2} grow style={{ color: BAR_TEXT, fontSize: 15, lineHeight: 19 }}>
          {hint}
        </Body>
        <Icon name={open ? 'chevron-down' : 'arrow-up'} color={BAR_TEXT} />
      </Pressable>
      <UndoRedo />
    </Row>
  );
}

/** With the initials in hand: the rule that puts them on every page of the document. */
export function EveryPage({ color = BAR_TEXT }: { color?: string }) {
  const { everyPageLikeThis } = useDeskActs();
  const { party, ruled } = useDesk((s) => {
    const at = positionOf(s);
    const inHand = s.draft.parties.find((x) => x.id === partyInHand(s));
    const rule = s.draft.rules.find((r) => r.documentId === at?.documentId);
    return {
      party: s.tool === 'initials' && at ? inHand : undefined,
      ruled: !!inHand && !!rule?.partyIds.includes(inHand.id),
    };
  });
  if (!party) return null;
  return ruled ? (
    <Row gap={8} style={{ minHeight: 44, flexShrink: 1 }}>
      <Icon name="check" color={color} size={20} />
      <Body style={{ color, flexShrink: 1 }}>{TEXT.initialsEveryPageOf(calledOf(party))}</Body>
    </Row>
  ) : (
    <Button onPress={everyPageLikeThis} testID="every-page" fit style={{ minHeight: 44 }}>
      {TEXT.everyPageBy(calledOf(party))}
    </Button>
  );
}

interface ToolsProps {
  isColumn?: boolean;
  /** Called when a tool was chosen. */
  onTaken?: () => void;
}

/** The tools: in a column the usual ones and "more", in a row all of them. */
function Tools({ isColumn = false, onTaken }: ToolsProps) {
  const { takeTool } = useDeskActs();
  const tool = useDesk((s) => s.tool);
  const [all, setAll] = useState(false);
  const isRare = TOOLS.findIndex((t) => t.tool === tool) >= USUAL_TOOLS;
  const shown = !isColumn || all || isRare ? TOOLS : TOOLS.slice(0, USUAL_TOOLS);
  const take = (v: string) => {
    const taken = TOOLS.find((t) => t.tool === v);
    if (taken) takeTool(taken.tool);
  };
  const Face = isColumn ? RailFace : LineFace;
  return (
    <>
      <RadioGroup
        label={TEXT.whichTool}
        value={tool}
        onChange={take}
        style={{ flexDirection: isColumn ? 'column' : 'row', gap: isColumn ? 2 : 6 }}
      >
        {shown.map((t) => (
          <Radio
            key={t.tool}
            value={t.tool}
            label={t.word}
            testID={`kind-${t.tool}`}
            onPress={() => onTaken?.()}
            style={isColumn ? { width: 56, minHeight: 48 } : { minHeight: 44 }}
          >
            <Face entry={t} on={t.tool === tool} />
          </Radio>
        ))}
      </RadioGroup>
      {isColumn && !isRare ? (
        <Pressable
          role="button"
          aria-expanded={all}
          aria-label={all ? TEXT.fewerTools : TEXT.moreTools}
          onPress={() => setAll((x) => !x)}
          testID="more-tools"
          style={{ width: 56, minHeight: 44, alignItems: 'center', justifyContent: 'center' }}
        >
          <Icon name={all ? 'minus' : 'more'} color={BAR_TEXT} />
          <Small style={{ color: BAR_TEXT, fontSize: 12, lineHeight: 14 }}>{all ? TEXT.fewer : TEXT.more}</Small>
        </Pressable>
      ) : null}
    </>
  );
}

interface FaceProps {
  entry: ToolEntry;
  on: boolean;
}

const RailFace = ({ entry: { icon, word }, on }: FaceProps) => (
  <Stack
    align="center"
    style={{ flex: 1, justifyContent: 'center', borderRadius: 10, backgroundColor: on ? BAR_TEXT : 'transparent' }}
  >
    <Icon name={{ path: icon }} size={20} color={on ? BAR : BAR_TEXT} />
    <Small center style={{ color: on ? BAR : BAR_TEXT, fontSize: 12, lineHeight: 13 }}>
      {word}
    </Small>
  </Stack>
);

const LineFace = ({ entry: { word }, on }: FaceProps) => (
  <Row style={{ minHeight: 44, paddingHorizontal: 14, borderRadius: 10, backgroundColor: on ? BAR_TEXT : BAR_SOFT }}>
    <Body style={{ color: on ? BAR : BAR_TEXT, fontFamily: on ? FONT.bold : FONT.text }}>{word}</Body>
  </Row>
);
