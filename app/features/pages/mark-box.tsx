/** A mark on a sheet: solid outline and filled corner when required, dashed when optional. */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { KINDS } from '@gatepath/core/filling';
import type { MarkKind } from '@gatepath/core/packet';
import type { Rect } from '@gatepath/core/paper';
import { inkOf } from '@gatepath/core/inks';
import { Body } from '../../ui/text';
import { FONT } from '../../ui/theme';

interface Props {
  rect: Rect;
  scale: number;
  kind: MarkKind;
  /** null for nobody's: the sender's own. */
  ink: number | null;
  required: boolean;
  selected?: boolean;
  text?: string;
}

/** Positions its children over a rectangle of the sheet. */
export function AtRect({ rect, scale, children }: { rect: Rect; scale: number; children: ReactNode }) {
  return (
    <View
      style={{
        position: 'absolute',
        left: rect.x * scale,
        top: rect.y * scale,
        width: rect.w * scale,
        height: rect.h * scale,
      }}
    >
      {children}
    </View>
  );
}

export function MarkFace({ rect, scale, kind, ink, required, selected, text }: Props) {
  const color = ink === null ? '#1E2A32' : inkOf(ink).color;
  const h = rect.h * scale;
  const corner = Math.min(11, h * 0.45);
  // A checkbox is too small for words; its shape says what it is.
  const { word: plain, filled } = KINDS[kind];
  const together = filled.by === 'touch' && filled.together;
  const word = text ?? (filled.by === 'touch' ? '' : plain);
  if (filled.by === 'sender') return <LabelFace scale={scale} h={h} selected={selected} text={text ?? ''} />;
  const size = Math.max(7, Math.min(14, h * 0.52, (rect.w * scale) / (Math.max(1, word.length) * 0.58)));
  return (
    <View
      style={{
        width: '100%',
        height: '100%',
        borderWidth: selected ? 2.5 : 1.5,
        borderStyle: required ? 'solid' : 'dashed',
        borderColor: color,
        backgroundColor: `${color}1F`,
        borderRadius: together ? h / 2 : 4,
        alignItems: 'center',
        justifyContent: 'center',
        overflow: 'hidden',
        ...(selected ? { boxShadow: `0 0 0 4px ${color}44` } : {}),
      }}
    >
      {required && !together ? (
        <View
          style={{
            position: 'absolute',
            left: 0,
            top: 0,
            width: 0,
            height: 0,
            borderTopWidth: corner,
            borderRightWidth: corner,
            borderTopColor: color,
            borderRightColor: 'transparent',
          }}
        />
      ) : null}
      <Body numberOfLines={1} style={{ color, fontFamily: FONT.bold, fontSize: size, lineHeight: size * 1.2 }}>
        {word}
      </Body>
    </View>
  );
}

/** The words of a label on the page; its box is visible only when it is selected. */
function LabelFace({ scale, h, selected, text }: { scale: number; h: number; selected?: boolean; text: string }) {
  const size = Math.max(5, Math.min(11 * scale, h / 1.25));
  return (
    <View
      style={{
        width: '100%',
        height: '100%',
        justifyContent: 'center',
        overflow: 'hidden',
        borderRadius: 3,
        borderWidth: selected ? 2 : 0,
        borderColor: '#1E2A32',
        borderStyle: 'dashed',
      }}
    >
      <Body
        numberOfLines={3}
        style={{ color: '#1E2A32', fontSize: size, lineHeight: size * 1.2, paddingLeft: 2 * scale }}
      >
        {text}
      </Body>
    </View>
  );
}
