/** The box of a checkbox or toggle; what can be touched is around it. */
import { View } from 'react-native';
import { usePalette } from './hooks';
import { Icon } from './icon';

export function TickBox({ on, size }: { on: boolean; size: number }) {
  const p = usePalette();
  return (
    <View
      style={{
        width: size,
        height: size,
        borderRadius: size / 4,
        borderWidth: 2,
        borderColor: p.ink,
        backgroundColor: on ? p.ink : 'transparent',
        alignItems: 'center',
        justifyContent: 'center',
      }}
    >
      {on ? <Icon name="check" size={size * 0.75} color={p.paper} /> : null}
    </View>
  );
}
