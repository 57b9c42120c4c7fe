/** Unpacking streams of strangers' PDFs within limits. */
import { constants, inflateRawSync, inflateSync } from 'node:zlib';
import { Refused } from './refusal';
import { decodePDFRawStream, PDFArray, PDFDict, PDFName, PDFRawStream } from '@cantoo/pdf-lib';
import { itemAt } from '@gatepath/core/sure';
import { codeOf } from '../errors';

/** A stream unpacks to more than allowed. */
export class TooLarge extends Error {}

/** Returns the names of a stream's filters, in order. */
export function filtersOf(stream: PDFRawStream): string[] {
  const filter = stream.dict.lookup(PDFName.of('Filter'));
  if (filter instanceof PDFName) return [filter.decodeText()];
  if (!(filter instanceof PDFArray)) return [];
  return filter.asArray().flatMap((_, i) => {
    const f = filter.lookup(i);
    return f instanceof PDFName ? [f.decodeText()] : [];
  });
}

const FLATE = new Set(['FlateDecode', 'Fl']);
/** Filters of pictures, which are bounded by the picture's size. */
const PICTURE = new Set(['DCTDecode', 'DCT', 'JPXDecode', 'CCITTFaxDecode', 'CCF', 'JBIG2Decode']);
/** Maximum packed size for LZW and run lengths, which a library without limits unpacks. */
const MOST_OTHER = 2 * 1024 * 1024;

/**
 * Returns the bytes of a stream.
 *
 * @param most maximum unpacked bytes
 * @throws `TooLarge`, or `Refused` if it is damaged
 */
export function unpack(stream: PDFRawStream, most: number): Uint8Array {
  const filters = filtersOf(stream);
  let bytes = stream.getContents();
  if (!filters.length) {
    if (bytes.length > most) throw new TooLarge();
    return bytes;
  }
  for (const [i, filter] of filters.entries()) {
    if (PICTURE.has(filter)) return bytes;
    if (FLATE.has(filter) && !hasPredictor(stream, i)) bytes = inflate(bytes, most);
    else {
      if (FLATE.has(filter)) inflate(bytes, most);
      else if (bytes.length > MOST_OTHER) throw new TooLarge();
      bytes = decodePDFRawStream(oneFilter(stream, bytes, i)).decode();
    }
    if (bytes.length > most) throw new TooLarge();
  }
  return bytes;
}

function parmsOf(stream: PDFRawStream, i: number): PDFDict | null {
  const parms = stream.dict.lookup(PDFName.of('DecodeParms')) ?? stream.dict.lookup(PDFName.of('DP'));
  const own = parms instanceof PDFArray ? parms.lookup(i) : parms;
  return own instanceof PDFDict ? own : null;
}

function hasPredictor(stream: PDFRawStream, i: number): boolean {
  const predictor = parmsOf(stream, i)?.lookup(PDFName.of('Predictor'));
  return predictor !== undefined && Number(predictor.toString()) > 1;
}

function oneFilter(stream: PDFRawStream, bytes: Uint8Array, i: number): PDFRawStream {
  const { context } = stream.dict;
  const dict = PDFDict.withContext(context);
  dict.set(PDFName.of('Filter'), PDFName.of(itemAt(filtersOf(stream), i)));
  const parms = parmsOf(stream, i);
  if (parms) dict.set(PDFName.of('DecodeParms'), parms);
  return PDFRawStream.of(dict, bytes);
}

/** Inflates like PDF readers do: what a damaged stream yields is accepted. */
export function inflate(bytes: Uint8Array, most: number): Uint8Array {
  const options = { maxOutputLength: Math.max(1, most), finishFlush: constants.Z_SYNC_FLUSH };
  try {
    return new Uint8Array(inflateSync(bytes, options));
  } catch (error) {
    if (codeOf(error) === 'ERR_BUFFER_TOO_LARGE') throw new TooLarge();
  }
  try {
    return new Uint8Array(inflateRawSync(bytes.subarray(2), options));
  } catch (error) {
    if (codeOf(error) === 'ERR_BUFFER_TOO_LARGE') throw new TooLarge();
    // What we cannot unpack a viewer might still draw: nobody could say what was signed.
    throw new Refused({ problem: 'broken' });
  }
}
