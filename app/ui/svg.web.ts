/** Elements of SVG in a browser, under the names and properties that `svg.tsx` has elsewhere. */
export const Svg = 'svg';
export const Circle = 'circle';
export const Image = 'image';
export const Line = 'line';
export const Path = 'path';
export const Polygon = 'polygon';
export const Rect = 'rect';
export const Text = 'text';
