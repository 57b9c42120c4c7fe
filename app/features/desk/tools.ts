/** The tools of the desk: what each is called and looks like, and what touching the page does with it. */
import {
  mdiAlphaICircleOutline,
  mdiAt,
  mdiBadgeAccountOutline,
  mdiCalendarCheckOutline,
  mdiCalendarOutline,
  mdiCheckboxMarkedOutline,
  mdiCurrencyUsd,
  mdiDomain,
  mdiFormatLetterCase,
  mdiFormatListBulleted,
  mdiFormatStrikethrough,
  mdiFormatText,
  mdiFountainPenTip,
  mdiNumeric,
  mdiPaperclip,
  mdiRadioboxMarked,
  mdiTagTextOutline,
  mdiTextBoxPlusOutline,
} from '@mdi/js';
import { MARK_KINDS, KINDS, isSenders, calledOf } from '@gatepath/core/packet';
import type { Tool } from './desk-setup';
import { partyInHand, type DeskState } from './desk-state';
import { TEXT } from './words';

const ICONS: Record<Tool, string> = {
  signature: mdiFountainPenTip,
  initials: mdiAlphaICircleOutline,
  date_signed: mdiCalendarCheckOutline,
  printed_name: mdiFormatLetterCase,
  company: mdiDomain,
  title: mdiBadgeAccountOutline,
  text: mdiFormatText,
  number: mdiNumeric,
  money: mdiCurrencyUsd,
  date: mdiCalendarOutline,
  email: mdiAt,
  tick: mdiCheckboxMarkedOutline,
  choice: mdiRadioboxMarked,
  list: mdiFormatListBulleted,
  file: mdiPaperclip,
  label: mdiTagTextOutline,
  strike: mdiFormatStrikethrough,
  insert: mdiTextBoxPlusOutline,
};

/** Those used in every packet; the others are behind "more". */
const USUAL: readonly Tool[] = ['signature', 'initials', 'date_signed', 'printed_name', 'text', 'tick', 'strike'];

export interface ToolEntry {
  tool: Tool;
  word: string;
  /** Its icon's path in a square of 24 units. */
  icon: string;
}

const entry = (tool: Tool): ToolEntry => ({
  tool,
  word: tool === 'strike' ? TEXT.strikeWords : tool === 'insert' ? TEXT.putWordsIn : KINDS[tool].word,
  icon: ICONS[tool],
});

/** All tools: the usual ones first. */
export const TOOLS: readonly ToolEntry[] = [
  ...USUAL,
  ...MARK_KINDS.filter((k) => !USUAL.includes(k)),
  'insert' as const,
].map(entry);

/** How many tools are shown before "more". */
export const USUAL_TOOLS = USUAL.length;

/** Returns what touching the page does now, in words. */
export function hintOf(state: DeskState): string {
  const { tool, draft } = state;
  if (tool === 'strike') return TEXT.dragOverTheWordsTo;
  if (tool === 'insert') return TEXT.tapThePageWhereWords;
  if (isSenders(tool)) return TEXT.tapToPlaceLabel;
  const inHand = draft.parties.find((p) => p.id === partyInHand(state));
  return inHand ? TEXT.tapToPlaceMark(calledOf(inHand), KINDS[tool].word) : TEXT.noOneInThisPacket;
}
