/** A person to press: token and words in a rounded frame; on or off if it is a choice. */
import type { ReactNode } from 'react';
import { Pressable } from 'react-native';
import { usePalette } from './hooks';
import { Body } from './text';
import { Token } from './token';

interface Props {
  name: string;
  ink: number;
  /** For a slot: it is an outline with these letters. */
  letters?: string | undefined;
  words: string;
  /** For screen readers. */
  label: string;
  onPress: () => void;
  testID: string;
  /** For a choice: whether it is on. Without it the chip is a button. */
  on?: boolean;
  children?: ReactNode;
}

export function PartyChip({ name, ink, letters, words, label, onPress, testID, on, children }: Props) {
  const p = usePalette();
  return (
    <Pressable
      role={on === undefined ? 'button' : 'checkbox'}
      aria-checked={on}
      aria-label={label}
      testID={testID}
      onPress={onPress}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 6,
        minHeight: 44,
        paddingHorizontal: 10,
        borderRadius: 12,
        borderWidth: 1.5,
        borderColor: on ? p.ink : p.rule,
        backgroundColor: on ? p.bench : 'transparent',
      }}
    >
      <Token name={name} ink={ink} letters={letters} size={24} />
      <Body style={{ fontSize: 15 }}>{words}</Body>
      {children}
    </Pressable>
  );
}
