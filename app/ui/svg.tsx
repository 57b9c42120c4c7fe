/** Elements of SVG. On the web they are the browser's own (`svg.web.ts`), which need no library. */
export { default as Svg, Circle, Image, Line, Path, Polygon, Rect, Text } from 'react-native-svg';
