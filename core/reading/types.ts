/**
 * What the reader knows of a page, and what it finds there. All lengths are PDF points from the top left corner of
 * the page as displayed, y down.
 */
import type { Rect } from '../paper/types';

/** One printed character, upright, with its true advance. */
export interface Glyph {
  ch: string;
  /** Left edge and right edge. */
  x0: number;
  x1: number;
  /** Baseline. */
  y: number;
  /** Type size as displayed. */
  size: number;
  bold: boolean;
}

/** A thin horizontal line, drawn as a stroke or as a flat filled box. */
export interface AcrossLine {
  x0: number;
  x1: number;
  y: number;
}

/** A thin vertical line. */
export interface DownLine {
  y0: number;
  y1: number;
  x: number;
}

/** Text and drawing of one page by its operators, without form widgets. */
export interface PageContent {
  width: number;
  height: number;
  /** Degrees the page is turned for display, clockwise. */
  rotation: number;
  glyphs: Glyph[];
  /** Boxes of words that do not run left to right; they are print, but not read. */
  turned: Rect[];
  across: AcrossLine[];
  down: DownLine[];
  /** Closed frames drawn as one path: boxes, rounded boxes, circles. */
  frames: Rect[];
  /** Filled areas that are tinted, as fields on a screen are. */
  shades: Rect[];
  /** Pictures on the page that may cover what is printed there. */
  pictures: Rect[];
  /** For a scanned page: without words, or with invisible words over it. */
  scan?: 'bare' | 'worded';
}

/** Kinds of printed places. */
export const PLACE_KINDS = ['signature', 'initials', 'date', 'name', 'text', 'checkbox'] as const;
/** One of `PLACE_KINDS`. */
export type PlaceKind = (typeof PLACE_KINDS)[number];

/** Roles of the person a printed place is for. */
export const PLACE_ROLES = [
  'seller',
  'buyer',
  'landlord',
  'tenant',
  'guarantor',
  'broker',
  'buyer_broker',
  'manager',
  'unknown',
] as const;
/** One of `PLACE_ROLES`. */
export type PlaceRole = (typeof PLACE_ROLES)[number];

/** What a place is for, and whose it is. */
export interface PlaceMeaning {
  kind: PlaceKind;
  role: PlaceRole;
  /** Which one of its role, from 1; null if the page does not say. */
  ordinal: number | null;
}

/** A place on the page that is to be filled, as it was read. */
export interface PrintedPlace extends PlaceMeaning {
  /** From 1. */
  page: number;
  rect: Rect;
  /**
   * For a date: whether it is the date of signing, which the act of signing sets; other dates are part of the text.
   */
  signed?: boolean;
  /** The words beside it, as printed. */
  label: string;
  source: 'print' | 'acroform';
  /** 0 to 1. */
  confidence: number;
  /** For an uncertain place: what else it may be, if that is nearly as probable. */
  other?: PlaceMeaning;
  /** What a form field says besides its place. */
  field?: FieldDetail;
  /** Whether it was dismissed in an earlier packet with the same document. */
  dismissed?: boolean;
  /** What was read, if the place was corrected in an earlier packet with the same document. */
  read?: PlaceMeaning & { rect: Rect };
}

/** What a form field says about its place. */
export interface FieldDetail {
  name: string;
  required: boolean;
  multiline: boolean;
  maxLength: number | null;
  /** Choices of a list or the value of a radio button. */
  options: string[];
  /** Shared by the radio buttons of one group. */
  group: string | null;
  readOnly: boolean;
}

/** Minimum confidence of what can be accepted without looking at it. */
export const DOUBT = 0.6;
