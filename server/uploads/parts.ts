/**
 * What a page needs to be seen, object by object: for each sort the entries that are kept, and
 * what each of them holds (ISO 32000-1, chapters 8 and 9). Whatever is not named here does not
 * come along: actions, scripts, attachments, media, forms, structure, and what nobody has thought of.
 */

/** `plain`: names, numbers, texts and lists of them. `map`: a dictionary of parts. `list`: one part or a list. */
export type Spec = 'plain' | Sort | { map: Sort } | { list: Sort };

/** Kinds whose entries are listed below. */
type Listed =
  | 'resources'
  | 'form'
  | 'image'
  | 'group'
  | 'state'
  | 'mask'
  | 'tiling'
  | 'shadingPattern'
  | 'shading'
  | 'function'
  | 'font'
  | 'encoding'
  | 'descriptor'
  | 'fontFile'
  | 'system'
  | 'cmap'
  | 'glyph'
  | 'profile'
  | 'blob'
  | 'calibration'
  | 'parms';

/** Kinds that must be determined by looking at the object. */
export type Chosen = 'xobject' | 'pattern' | 'space' | 'stateFont' | 'imageMask';
/** Name of a kind of part that may be copied. */
export type Sort = Listed | Chosen;

const plain = (...keys: string[]): Record<string, Spec> => Object.fromEntries(keys.map((k) => [k, 'plain']));

/** The allow-list: which entries of which kind of part are copied. */
export const PARTS: Record<Listed, Record<string, Spec>> = {
  resources: {
    ...plain('ProcSet'),
    Font: { map: 'font' },
    XObject: { map: 'xobject' },
    ExtGState: { map: 'state' },
    ColorSpace: { map: 'space' },
    Pattern: { map: 'pattern' },
    Shading: { map: 'shading' },
  },
  form: { ...plain('Type', 'Subtype', 'FormType', 'BBox', 'Matrix'), Resources: 'resources', Group: 'group' },
  image: {
    ...plain('Type', 'Subtype', 'Width', 'Height', 'BitsPerComponent', 'ImageMask', 'Decode', 'Interpolate', 'Intent'),
    ...plain('SMaskInData', 'Matte'),
    ColorSpace: 'space',
    SMask: 'imageMask',
    Mask: 'imageMask',
  },
  group: { ...plain('Type', 'S', 'I', 'K'), CS: 'space' },
  state: {
    ...plain('Type', 'LW', 'LC', 'LJ', 'ML', 'D', 'RI', 'OP', 'op', 'OPM', 'FL', 'SM', 'SA', 'BM', 'CA', 'ca', 'AIS'),
    ...plain('TK'),
    Font: 'stateFont',
    BG: 'function',
    BG2: 'function',
    UCR: 'function',
    UCR2: 'function',
    TR: { list: 'function' },
    TR2: { list: 'function' },
    SMask: 'mask',
  },
  mask: { ...plain('Type', 'S', 'BC'), G: 'xobject', TR: 'function' },
  tiling: {
    ...plain('Type', 'PatternType', 'PaintType', 'TilingType', 'BBox', 'XStep', 'YStep', 'Matrix'),
    Resources: 'resources',
  },
  shadingPattern: { ...plain('Type', 'PatternType', 'Matrix'), Shading: 'shading', ExtGState: 'state' },
  shading: {
    ...plain('ShadingType', 'Background', 'BBox', 'AntiAlias', 'Domain', 'Matrix', 'Coords', 'Extend', 'Decode'),
    ...plain('BitsPerCoordinate', 'BitsPerComponent', 'BitsPerFlag', 'VerticesPerRow'),
    ColorSpace: 'space',
    Function: { list: 'function' },
  },
  function: {
    ...plain('FunctionType', 'Domain', 'Range', 'Size', 'BitsPerSample', 'Order', 'Encode', 'Decode', 'C0', 'C1', 'N'),
    ...plain('Bounds'),
    Functions: { list: 'function' },
  },
  font: {
    ...plain('Type', 'Subtype', 'BaseFont', 'Name', 'FirstChar', 'LastChar', 'Widths', 'FontMatrix', 'FontBBox'),
    ...plain('DW', 'W', 'DW2', 'W2'),
    Encoding: 'encoding',
    ToUnicode: 'cmap',
    FontDescriptor: 'descriptor',
    DescendantFonts: { list: 'font' },
    CIDSystemInfo: 'system',
    CIDToGIDMap: 'blob',
    CharProcs: { map: 'glyph' },
    Resources: 'resources',
  },
  // A named encoding, differences to one, or a stream that is a CMap.
  encoding: {
    ...plain('Type', 'BaseEncoding', 'Differences', 'CMapName', 'WMode'),
    CIDSystemInfo: 'system',
    UseCMap: 'cmap',
  },
  descriptor: {
    ...plain('Type', 'FontName', 'FontFamily', 'FontStretch', 'FontWeight', 'Flags', 'FontBBox', 'ItalicAngle'),
    ...plain('Ascent', 'Descent', 'Leading', 'CapHeight', 'XHeight', 'StemV', 'StemH', 'AvgWidth', 'MaxWidth'),
    ...plain('MissingWidth', 'CharSet'),
    FontFile: 'fontFile',
    FontFile2: 'fontFile',
    FontFile3: 'fontFile',
    CIDSet: 'blob',
  },
  fontFile: plain('Length1', 'Length2', 'Length3', 'Subtype'),
  system: plain('Registry', 'Ordering', 'Supplement'),
  cmap: { ...plain('Type', 'CMapName', 'WMode'), CIDSystemInfo: 'system', UseCMap: 'cmap' },
  glyph: {},
  profile: { ...plain('N', 'Range'), Alternate: 'space' },
  blob: {},
  calibration: plain('WhitePoint', 'BlackPoint', 'Gamma', 'Matrix', 'Range'),
  parms: {
    ...plain('Predictor', 'Colors', 'BitsPerComponent', 'Columns', 'EarlyChange', 'K', 'EndOfLine', 'Rows'),
    ...plain('EncodedByteAlign', 'EndOfBlock', 'BlackIs1', 'DamagedRowsBeforeError', 'ColorTransform'),
    JBIG2Globals: 'blob',
  },
};

/** Filters a stream may have; `Crypt` would need keys that we do not have. */
export const FILTERS = new Set([
  'FlateDecode',
  'Fl',
  'LZWDecode',
  'LZW',
  'ASCII85Decode',
  'A85',
  'ASCIIHexDecode',
  'AHx',
  'RunLengthDecode',
  'RL',
  'DCTDecode',
  'DCT',
  'JPXDecode',
  'CCITTFaxDecode',
  'CCF',
  'JBIG2Decode',
]);

/** Kinds whose stream is content: operators that draw. */
export const DRAWS = new Set<Sort>(['form', 'tiling', 'glyph']);
