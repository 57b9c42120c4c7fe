/** A page as dots: what a scanner or camera saw, row by row from the top left. */

/** Brightness of each dot, from 0 (black) to 255. */
export interface Gray {
  width: number;
  height: number;
  data: Uint8Array;
}

/** Which dots are ink: 1, others 0. */
export interface Mask {
  width: number;
  height: number;
  data: Uint8Array;
}

/** A word as recognized, in dots of its picture from the top left. */
export interface SeenWord {
  text: string;
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** The baseline of its line, at the word's left end. */
  baseline: number;
  /** Height of the line's type, from the top of capitals to the foot of descenders. */
  high: number;
  /** 0 to 1. */
  confidence: number;
}
