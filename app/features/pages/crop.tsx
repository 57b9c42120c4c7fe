/** A part of a page around a rectangle, with anything laid over it. */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import type { Rect } from '@gatepath/core/paper';
import { usePalette } from '../../ui/hooks';
import { Sheet, type SheetPage } from './sheet';

/** Its width in pixels, and how much of the page around the rectangle is shown, in points. */
const WIDTH = 300;
const AROUND = { x: 60, y: 22 };
/** Its maximum height: of a long passage the beginning is shown. */
const TALLEST = 260;

export function Crop(o: {
  page: SheetPage;
  url: string;
  rect: Rect;
  label: string;
  children: (scale: number) => ReactNode;
}) {
  const p = usePalette();
  const { rect, page } = o;
  const scale = Math.max(0.5, Math.min(1.6, WIDTH / (rect.w + 2 * AROUND.x)));
  const height = Math.min(TALLEST, (rect.h + 2 * AROUND.y) * scale);
  const left = Math.min(0, Math.max(WIDTH - page.width * scale, WIDTH / 2 - (rect.x + rect.w / 2) * scale));
  const middle = height < TALLEST ? rect.y + rect.h / 2 : rect.y - AROUND.y + height / 2 / scale;
  const top = Math.min(0, height / 2 - middle * scale);
  return (
    <View style={{ width: WIDTH, maxWidth: '100%', height, overflow: 'hidden', borderWidth: 1, borderColor: p.rule }}>
      <View style={{ marginLeft: left, marginTop: top }}>
        <Sheet page={page} url={o.url} width={page.width * scale} label={o.label}>
          {o.children(scale)}
        </Sheet>
      </View>
    </View>
  );
}
