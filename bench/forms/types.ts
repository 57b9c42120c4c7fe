/** How a labelled form is written, and what is kept of it. */
export interface FormSource {
  name: string;
  /**
   * browser: HTML printed by Chromium; sheet: HTML set by a program for paged print; writer: flat ODT by a word
   * processor; library: pdfmake.
   */
  how: 'browser' | 'sheet' | 'writer' | 'library';
  /** Pages lie on their side in the file and are turned upright for display. */
  turned?: boolean;
  body: unknown;
  /** Blanks that cannot carry a link, measured by hand. */
  more?: Labelled[];
}

/** A blank as its form's author meant it; rect as x, y, w, h in points from the top left. */
export interface Labelled {
  page: number;
  kind: string;
  role: string;
  ordinal: number | null;
  rect: [number, number, number, number];
}
