/** Script faces for typed hands, loaded only when something on the screen needs them. */
import { useFonts } from 'expo-font';
import { Caveat_500Medium } from '@expo-google-fonts/caveat/500Medium';
import { DancingScript_500Medium } from '@expo-google-fonts/dancing-script/500Medium';
import { LaBelleAurore_400Regular } from '@expo-google-fonts/la-belle-aurore/400Regular';
import { Mynerve_400Regular } from '@expo-google-fonts/mynerve';
import { ReenieBeanie_400Regular } from '@expo-google-fonts/reenie-beanie/400Regular';
import type { ScriptFace } from '@gatepath/core/routing';

const FILES = {
  caveat: { Caveat_500Medium },
  'dancing-script': { DancingScript_500Medium },
  'la-belle-aurore': { LaBelleAurore_400Regular },
  'reenie-beanie': { ReenieBeanie_400Regular },
} as const;

/** The font stack of a script face: missing letters fall back in the same order as on paper. */
export function familyOf(face: ScriptFace): string {
  const own = Object.keys(FILES[face])[0]!;
  return [...new Set([own, 'Caveat_500Medium', 'Mynerve_400Regular', 'AtkinsonHyperlegible_400Regular'])].join(', ');
}

/** Whether the faces are there to be measured and shown. `text` tells which fall-backs are needed. */
export function useHandFonts(faces: ScriptFace[], text = ''): boolean {
  const foreign = /[^ -\u024f]/u.test(text);
  const wanted: Record<string, number> = {};
  for (const face of faces) Object.assign(wanted, FILES[face]);
  if (foreign) Object.assign(wanted, FILES.caveat, { Mynerve_400Regular });
  const [loaded] = useFonts(wanted);
  return loaded || Object.keys(wanted).length === 0;
}

let canvas: CanvasRenderingContext2D | null = null;

/** Width of text in a font stack, as the browser will set it. */
export function measureIn(family: string): (text: string, size: number) => number {
  return (text, size) => {
    canvas ??= document.createElement('canvas').getContext('2d');
    if (!canvas) return text.length * size * 0.5;
    canvas.font = `100px ${family}`;
    return (canvas.measureText(text).width / 100) * size;
  };
}
