/**
 * Pictures from outside: whether a file is complete (what libraries fill with gray must not be signed), and its
 * pixels.
 */
import type { Rgb } from '@gatepath/core/scan';
import sharp from 'sharp';
import { itemAt } from '@gatepath/core/sure';

/**
 * Returns the pixels of a picture: turned upright by its EXIF data, transparency as white, scaled down.
 *
 * @param most pixels along the longer side
 * @param pixels maximum pixels it may unpack to
 */
export async function uprightRgb(bytes: Uint8Array, most: number, pixels: number): Promise<Rgb> {
  const { data, info } = await sharp(bytes, { failOn: 'error', limitInputPixels: pixels })
    .rotate()
    .flatten({ background: '#ffffff' })
    .resize({ width: most, height: most, fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb')
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
}

/** Returns whether a picture is complete. @returns false for a JPEG, PNG or WebP that was cut off */
export function isWholePicture(b: Uint8Array): boolean {
  if (b[0] === 0xff && b[1] === 0xd8) return isWholeJpeg(b);
  if (b[0] === 0x89) return Buffer.from(b.subarray(-64)).includes('IEND') || Buffer.from(b).includes('IEND');
  // RIFF: the length follows the name.
  const view = new DataView(b.buffer, b.byteOffset, b.byteLength);
  return b.length >= 12 && view.getUint32(4, true) + 8 <= b.length;
}

/** Follows the segments (ITU-T T.81, B.1.1) to the end-of-image marker of the main picture. */
function isWholeJpeg(b: Uint8Array): boolean {
  let i = 2;
  let scanned = false;
  while (i + 1 < b.length) {
    if (b[i] !== 0xff) {
      // Inside a scan, data goes on up to the next marker.
      if (!scanned) return false;
      i = b.indexOf(0xff, i);
      if (i < 0) return false;
      continue;
    }
    const marker = itemAt(b, i + 1);
    if (marker === 0xd9) return scanned;
    if (marker === 0xff) i += 1;
    // Stuffed bytes, restarts, and markers without a length.
    else if (marker === 0 || marker === 1 || (marker >= 0xd0 && marker <= 0xd8)) i += 2;
    else {
      if (i + 3 >= b.length) return false;
      if (marker === 0xda) scanned = true;
      i += 2 + ((itemAt(b, i + 2) << 8) | itemAt(b, i + 3));
    }
  }
  return false;
}
