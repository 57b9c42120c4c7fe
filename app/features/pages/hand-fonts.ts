/** Script faces for typed hands, loaded only when something on the screen needs them. */
import { useFonts } from 'expo-font';
import type { ScriptFace } from '@gatepath/core/packet';
import Caveat_500Medium from '../../assets/fonts/Caveat_500Medium.woff2';
import Caveat_500Medium_Beyond from '../../assets/fonts/Caveat_500Medium_Beyond.woff2';
import DancingScript_500Medium from '../../assets/fonts/DancingScript_500Medium.woff2';
import LaBelleAurore_400Regular from '../../assets/fonts/LaBelleAurore_400Regular.woff2';
import NotoSans_400Regular from '../../assets/fonts/NotoSans_400Regular.woff2';
import Mynerve_400Regular from '../../assets/fonts/Mynerve_400Regular.woff2';
import ReenieBeanie_400Regular from '../../assets/fonts/ReenieBeanie_400Regular.woff2';
import { itemAt } from '@gatepath/core/sure';

const FILES = {
  caveat: { Caveat_500Medium },
  'dancing-script': { DancingScript_500Medium },
  'la-belle-aurore': { LaBelleAurore_400Regular },
  'reenie-beanie': { ReenieBeanie_400Regular },
} as const;

/** Returns the font stack of a script face: missing letters fall back in the same order as on paper. */
export function familyOf(face: ScriptFace): string {
  const own = itemAt(Object.keys(FILES[face]), 0);
  return [
    ...new Set([own, 'Caveat_500Medium', 'Caveat_500Medium_Beyond', 'Mynerve_400Regular', 'NotoSans_400Regular']),
  ].join(', ');
}

/**
 * Returns whether the faces are loaded.
 *
 * @param text what hands write, which tells the fallbacks needed
 * @param written whether there is other text, in the face of documents
 */
export function useHandFonts(faces: ScriptFace[], text = '', written = false): boolean {
  // Dashes and curly quotes are in every face; anything else beyond Latin may need those that fall back.
  const foreign = /[^ -\u024f\u2013\u2014\u2018\u2019\u201c\u201d]/u.test(text);
  const wanted: Record<string, number> = {};
  for (const face of faces) Object.assign(wanted, FILES[face]);
  if (foreign) Object.assign(wanted, FILES.caveat, { Caveat_500Medium_Beyond, Mynerve_400Regular });
  if (foreign || written) Object.assign(wanted, { NotoSans_400Regular });
  const [loaded] = useFonts(wanted);
  return loaded || Object.keys(wanted).length === 0;
}

let canvas: CanvasRenderingContext2D | null = null;

/** Returns the width of text in a font stack, as the browser sets it. */
export function measureIn(family: string): (text: string, size: number) => number {
  return (text, size) => {
    canvas ??= document.createElement('canvas').getContext('2d');
    if (!canvas) return text.length * size * 0.5;
    canvas.font = `100px ${family}`;
    return (canvas.measureText(text).width / 100) * size;
  };
}
