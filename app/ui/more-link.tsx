/** "3 more": shows the rest. Low for a mouse, as high as a thumb on a phone. */
import { Pressable } from 'react-native';
import { useWide } from './hooks';
import { Small } from './text';
import { FONT } from './theme';

export function MoreLink({ children, onPress }: { children: string; onPress: () => void }) {
  const wide = useWide();
  return (
    <Pressable
      role="button"
      onPress={onPress}
      style={{ minHeight: wide ? 30 : 44, alignSelf: 'flex-start', justifyContent: 'center', paddingHorizontal: 4 }}
    >
      <Small tone="act" style={{ fontFamily: FONT.bold }}>
        {children}
      </Small>
    </Pressable>
  );
}
