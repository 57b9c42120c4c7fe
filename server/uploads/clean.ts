/** Copying what pages need to be seen from a stranger's file into a new one; parts.ts says what that is. */
import { deflateSync } from 'node:zlib';
import {
  PDFArray,
  PDFBool,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNull,
  PDFNumber,
  PDFRawStream,
  PDFRef,
  PDFStream,
  PDFString,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import type { Layers } from './layers';
import { withoutLayers } from '../pdf/operators';
import { DRAWS, FILTERS, PARTS, type Sort, type Spec } from './parts';
import { PAPER_LIMITS, Refused } from './refusal';
import { inflate, TooLarge, unpack } from './unpack';
import { isKeyOf } from '@gatepath/core/sure';

type Copied = PDFObject | undefined;
const key = (name: string) => PDFName.of(name);

/** Copies allowed parts of a PDF into a new one. */
export class Cleaner {
  /** The copy of each object, by the kind of part it was copied as. */
  private readonly made = new Map<PDFObject, Map<string, PDFRef>>();
  private objects = 0;
  /** The page being copied, for refusals. */
  page = 1;

  constructor(
    private readonly from: PDFContext,
    private readonly to: PDFContext,
    private readonly layers: Layers,
  ) {}

  /** Copies an object as a kind of part; undefined if it is not one. */
  take(value: Copied, spec: Spec, depth = 0): Copied {
    if (depth > 120) throw new Refused({ problem: 'too_deep', page: this.page });
    const v = value instanceof PDFRef ? this.from.lookup(value) : value;
    if (v === undefined || v === PDFNull) return undefined;
    if (spec === 'plain') return this.plain(v, depth);
    if (typeof spec === 'object') return 'map' in spec ? this.map(v, spec.map, depth) : this.list(v, spec.list, depth);
    const sort = this.sortOf(v, spec);
    if (sort === null) return undefined;
    if (sort === 'plain') return this.plain(v, depth);
    if (v instanceof PDFArray)
      return sort === 'space' ? this.space(v, depth) : sort === 'stateFont' ? this.stateFont(v, depth) : undefined;
    if (!(v instanceof PDFDict || v instanceof PDFStream)) return this.plain(v, depth);
    return this.object(v, sort, depth);
  }

  /** Returns the kind of an object, if that must be determined. */
  private sortOf(v: PDFObject, spec: Sort): Sort | 'plain' | null {
    const dict = v instanceof PDFStream ? v.dict : v instanceof PDFDict ? v : null;
    const is = (entry: string) => {
      const x = dict?.lookup(key(entry));
      return x instanceof PDFName ? x.decodeText() : x instanceof PDFNumber ? String(x.asNumber()) : null;
    };
    switch (spec) {
      case 'xobject':
        if (!(v instanceof PDFStream)) return null;
        return is('Subtype') === 'Image' ? 'image' : is('Subtype') === 'Form' || dict!.has(key('BBox')) ? 'form' : null;
      case 'imageMask':
        return v instanceof PDFStream ? 'image' : v instanceof PDFArray ? 'plain' : null;
      case 'pattern':
        if (v instanceof PDFStream) return 'tiling';
        return is('PatternType') === '2' ? 'shadingPattern' : null;
      case 'space':
        return v instanceof PDFName ? 'plain' : v instanceof PDFArray ? 'space' : null;
      case 'stateFont':
        return v instanceof PDFArray ? 'stateFont' : null;
      case 'calibration':
      case 'parms':
      case 'group':
      case 'resources':
      case 'system':
      case 'descriptor':
        return v instanceof PDFDict && !(v instanceof PDFStream) ? spec : null;
      case 'image':
      case 'form':
      case 'glyph':
      case 'fontFile':
      case 'profile':
        return v instanceof PDFStream ? spec : null;
      default:
        return spec;
    }
  }

  /** Copies names, numbers, texts, and lists of them. */
  private plain(v: PDFObject, depth: number): Copied {
    if (
      v instanceof PDFName ||
      v instanceof PDFNumber ||
      v instanceof PDFBool ||
      v instanceof PDFString ||
      v instanceof PDFHexString
    )
      return v;
    if (!(v instanceof PDFArray)) return undefined;
    const out = PDFArray.withContext(this.to);
    for (const item of v.asArray()) out.push(this.take(item, 'plain', depth + 1) ?? PDFNull);
    return out;
  }

  private map(v: PDFObject, sort: Sort, depth: number): Copied {
    if (!(v instanceof PDFDict)) return undefined;
    const out = PDFDict.withContext(this.to);
    for (const [name, entry] of v.entries()) {
      const kept = this.take(entry, sort, depth + 1);
      if (kept) out.set(name, kept);
    }
    return out;
  }

  private list(v: PDFObject, sort: Sort, depth: number): Copied {
    if (!(v instanceof PDFArray)) return this.take(v, sort, depth + 1);
    const out = PDFArray.withContext(this.to);
    for (const item of v.asArray()) {
      const kept = this.take(item, sort, depth + 1);
      if (kept) out.push(kept);
    }
    return out;
  }

  /** Copies a color space (8.6.3): its family determines its other items. */
  private space(v: PDFArray, depth: number): Copied {
    const family = v.lookup(0);
    if (!(family instanceof PDFName)) return undefined;
    const rest: Record<string, Spec[]> = {
      CalGray: ['calibration'],
      CalRGB: ['calibration'],
      Lab: ['calibration'],
      ICCBased: ['profile'],
      Indexed: ['space', 'plain', 'blob'],
      I: ['space', 'plain', 'blob'],
      Pattern: ['space'],
      Separation: ['plain', 'space', 'function'],
      DeviceN: ['plain', 'space', 'function'],
    };
    const specs = rest[family.decodeText()] ?? [];
    const out = PDFArray.withContext(this.to);
    out.push(family);
    for (const [i, spec] of specs.entries()) {
      const kept = i + 1 < v.size() ? this.take(v.get(i + 1), spec, depth + 1) : undefined;
      if (!kept) break;
      out.push(kept);
    }
    return out;
  }

  private stateFont(v: PDFArray, depth: number): Copied {
    const font = this.take(v.get(0), 'font', depth + 1);
    const size = this.take(v.get(1), 'plain', depth + 1);
    if (!font || !size) return undefined;
    const out = PDFArray.withContext(this.to);
    out.push(font);
    out.push(size);
    return out;
  }

  /** Copies a dictionary or stream, once per kind it is copied as. */
  private object(v: PDFDict | PDFStream, sort: Sort, depth: number): PDFRef {
    const known = this.made.get(v)?.get(sort);
    if (known) return known;
    if (++this.objects > PAPER_LIMITS.objects) throw new Refused({ problem: 'too_many_objects' });
    const ref = this.to.nextRef();
    this.made.set(v, (this.made.get(v) ?? new Map()).set(sort, ref));
    const dict = this.entries(v instanceof PDFStream ? v.dict : v, sort, depth);
    this.to.assign(ref, v instanceof PDFStream ? this.stream(v, dict, sort, depth) : dict);
    return ref;
  }

  entries(from: PDFDict, sort: Sort, depth: number): PDFDict {
    const dict = PDFDict.withContext(this.to);
    for (const [name, spec] of Object.entries(isKeyOf(PARTS, sort) ? PARTS[sort] : {})) {
      const kept = this.take(from.get(key(name)), spec, depth + 1);
      if (kept) dict.set(key(name), kept);
    }
    return dict;
  }

  private stream(v: PDFStream, dict: PDFDict, sort: Sort, depth: number): PDFStream {
    if (!(v instanceof PDFRawStream)) {
      // Appearances of fields that we drew a moment ago.
      dict.set(key('Filter'), key('FlateDecode'));
      return PDFRawStream.of(dict, new Uint8Array(deflateSync(this.unpack(v, PAPER_LIMITS.content))));
    }
    if (DRAWS.has(sort)) {
      const hidden = this.layers.isHidden(v.dict.lookup(key('OC')));
      return this.content(hidden ? new Uint8Array(0) : this.unpack(v, PAPER_LIMITS.content), dict, v.dict);
    }
    const filters = this.take(v.dict.get(key('Filter')) ?? v.dict.get(key('F')), 'plain', depth);
    for (const f of filters instanceof PDFArray ? filters.asArray() : filters ? [filters] : [])
      if (!(f instanceof PDFName) || !FILTERS.has(f.decodeText())) throw new Refused({ problem: 'broken' });
    if (sort === 'image') {
      const side = (name: string) => Number(v.dict.lookup(key(name))?.toString() ?? 0);
      if (!(side('Width') * side('Height') <= PAPER_LIMITS.pixels))
        throw new Refused({ problem: 'picture_too_large', page: this.page });
    } else this.unpack(v, PAPER_LIMITS.stream);
    if (filters) dict.set(key('Filter'), filters);
    const parms = this.take(v.dict.get(key('DecodeParms')) ?? v.dict.get(key('DP')), { list: 'parms' }, depth);
    if (parms) dict.set(key('DecodeParms'), this.paired(v, parms));
    return PDFRawStream.of(dict, v.getContents());
  }

  /**
   * Copies a stream's filters with their parameters, which correspond by position: null stands for a filter without
   * any.
   */
  private paired(v: PDFRawStream, parms: PDFObject): PDFObject {
    const from = v.dict.lookup(key('DecodeParms')) ?? v.dict.lookup(key('DP'));
    if (!(from instanceof PDFArray)) return parms;
    const out = PDFArray.withContext(this.to);
    for (const item of from.asArray()) out.push(this.take(item, 'parms', 1) ?? PDFNull);
    return out;
  }

  /** Compresses content again: what is counted and cleared is what is drawn. */
  content(bytes: Uint8Array, dict: PDFDict | null, from: PDFDict | null): PDFStream {
    const properties = from?.lookup(key('Resources'));
    const shown = this.withoutHidden(bytes, properties instanceof PDFDict ? properties : null);
    const own = dict ?? PDFDict.withContext(this.to);
    own.set(key('Filter'), key('FlateDecode'));
    return PDFRawStream.of(own, new Uint8Array(deflateSync(shown)));
  }

  /** Returns content without what belongs to layers that are off, by the properties its resources name. */
  withoutHidden(bytes: Uint8Array, resources: PDFDict | null): Uint8Array {
    if (!this.layers.hidden) return bytes;
    const properties = resources?.lookup(key('Properties'));
    return withoutLayers(bytes, (name) =>
      this.layers.isHidden(properties instanceof PDFDict ? properties.lookup(key(name)) : undefined),
    );
  }

  unpack(stream: PDFStream, most: number): Uint8Array {
    try {
      return stream instanceof PDFRawStream ? unpack(stream, most) : inflate(stream.getContents(), most);
    } catch (error) {
      if (error instanceof TooLarge) throw new Refused({ problem: 'unpacks_too_large', page: this.page });
      throw error;
    }
  }
}
