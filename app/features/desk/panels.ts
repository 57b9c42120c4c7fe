/** The panels of the desk and what they are called. */
import { TEXT } from './words';

/** A panel of the desk besides the pages. */
export type DeskPanel = 'printed' | 'ledger' | 'path' | 'check';
export type DeskTab = 'pages' | DeskPanel;
/** The panels of the desk, in order. */
export const PANELS: readonly { value: DeskPanel; label: string }[] = [
  { value: 'printed', label: TEXT.printed },
  { value: 'ledger', label: TEXT.ledger },
  { value: 'path', label: TEXT.path },
  { value: 'check', label: TEXT.check },
];
/** The same on a phone, where the pages are a tab too. */
export const TABS: readonly { value: DeskTab; label: string }[] = [{ value: 'pages', label: TEXT.pages }, ...PANELS];
