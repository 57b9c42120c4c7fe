import sharp from 'sharp';
import type { Rect } from '@gatepath/core/paper';
import type { Context } from '../context';
import { documentOr404, pageImage } from '../documents/service';

/** Returns the number of dark pixels under a rectangle (points) on the blank page, drawn at 144 dpi. */
export async function inkUnder(ctx: Context, documentId: string, page: number, rect: Rect): Promise<number> {
  const row = await documentOr404(ctx.database.pool, documentId);
  const k = 144 / 72;
  const box = {
    left: Math.ceil(rect.x * k),
    top: Math.ceil(rect.y * k),
    width: Math.floor(rect.w * k) - 1,
    height: Math.floor(rect.h * k) - 1,
  };
  const px = await sharp(await pageImage(ctx, row, page, 144))
    .greyscale()
    .extract(box)
    .raw()
    .toBuffer();
  return px.filter((v) => v < 200).length;
}
