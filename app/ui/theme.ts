/** Colors and type. Dark is derived: ground and ink are exchanged, hues stay. */
import { MD3DarkTheme, MD3LightTheme, configureFonts, type MD3Theme } from 'react-native-paper';

export const FONT = {
  text: 'AtkinsonHyperlegible_400Regular, Verdana, "DejaVu Sans", sans-serif',
  bold: 'AtkinsonHyperlegible_700Bold, Verdana, "DejaVu Sans", sans-serif',
  /** The face of what is written on papers, as in the sealed copy. */
  document: 'NotoSans_400Regular, AtkinsonHyperlegible_400Regular, Verdana, "DejaVu Sans", sans-serif',
  heading: 'BricolageGrotesque_700Bold, Verdana, "DejaVu Sans", sans-serif',
} as const;

export interface Palette {
  ink: string;
  paper: string;
  sheet: string;
  rule: string;
  brick: string;
  brickWash: string;
  ochreWash: string;
  moss: string;
  ochre: string;
  wine: string;
  slate: string;
  onBrick: string;
  bench: string;
}

export const light: Palette = {
  ink: '#1E2A32',
  paper: '#FBF8F3',
  sheet: '#FFFFFF',
  rule: '#DDD5C8',
  brick: '#A8452C',
  brickWash: '#F4DDD6',
  ochreWash: '#F6EBD3',
  moss: '#4C6B3C',
  ochre: '#8A5F0E',
  wine: '#8E1B2F',
  slate: '#5B6770',
  onBrick: '#FFFFFF',
  bench: '#EFEAE1',
};

export const dark: Palette = {
  ink: '#F1ECE3',
  paper: '#171E23',
  sheet: '#1F282F',
  rule: '#3B464E',
  brick: '#E08A72',
  brickWash: '#4A2A22',
  ochreWash: '#3F3318',
  moss: '#9CC188',
  ochre: '#DDB25C',
  wine: '#EE8496',
  slate: '#A9B4BC',
  onBrick: '#231511',
  bench: '#11171B',
};

export interface AppTheme extends MD3Theme {
  palette: Palette;
}

export function makeTheme(isDark: boolean): AppTheme {
  const base = isDark ? MD3DarkTheme : MD3LightTheme;
  const p = isDark ? dark : light;
  return {
    ...base,
    roundness: 3,
    palette: p,
    fonts: configureFonts({
      config: { fontFamily: FONT.text, fontWeight: 'normal', letterSpacing: 0 },
    }),
    colors: {
      ...base.colors,
      primary: p.brick,
      onPrimary: p.onBrick,
      primaryContainer: p.brickWash,
      onPrimaryContainer: p.ink,
      secondary: p.slate,
      secondaryContainer: p.bench,
      onSecondaryContainer: p.ink,
      background: p.paper,
      onBackground: p.ink,
      surface: p.sheet,
      onSurface: p.ink,
      surfaceVariant: p.bench,
      onSurfaceVariant: p.slate,
      outline: p.slate,
      outlineVariant: p.rule,
      error: p.wine,
      elevation: { ...base.colors.elevation, level1: p.sheet, level2: p.sheet, level3: p.sheet },
    },
  };
}
