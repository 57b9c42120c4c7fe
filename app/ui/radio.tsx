/**
 * Choosing one of several. The browser's own radio buttons lie invisibly over what is shown, so that keys (one tab
 * stop, arrows between them), forms and screen readers work as everywhere.
 */
import { createContext, type ReactNode, useContext, useId, useState } from 'react';
import { type StyleProp, View, type ViewStyle } from 'react-native';
import { usePalette } from './hooks';
import { isFocusedByKeys } from './web';

const Group = createContext<{ name: string; value: string | null; onChange: (value: string) => void } | null>(null);

interface GroupProps {
  label: string;
  value: string | null;
  onChange: (value: string) => void;
  style?: StyleProp<ViewStyle>;
  children: ReactNode;
}

export function RadioGroup({ label, value, onChange, style, children }: GroupProps) {
  const name = useId();
  return (
    <Group.Provider value={{ name, value, onChange }}>
      <View role="radiogroup" aria-label={label} style={style}>
        {children}
      </View>
    </Group.Provider>
  );
}

interface ItemProps {
  value: string;
  label: string;
  testID?: string;
  /** Called at every press, also of the one already chosen. */
  onPress?: () => void;
  style?: ViewStyle;
  children: ReactNode;
}

export function Radio({ value, label, testID, onPress, style, children }: ItemProps) {
  const p = usePalette();
  const group = useContext(Group);
  const [byKeys, setByKeys] = useState(false);
  const ring = byKeys ? { outlineWidth: 3, outlineStyle: 'solid' as const, outlineColor: p.brick } : null;
  return (
    <View style={[style, ring]}>
      {children}
      <input
        type="radio"
        name={group?.name}
        checked={group?.value === value}
        aria-label={label}
        data-testid={testID}
        onChange={() => group?.onChange(value)}
        onClick={onPress}
        onFocus={(e) => setByKeys(isFocusedByKeys(e.target))}
        onBlur={() => setByKeys(false)}
        style={{
          position: 'absolute',
          inset: 0,
          width: '100%',
          height: '100%',
          margin: 0,
          opacity: 0,
          cursor: 'pointer',
        }}
      />
    </View>
  );
}
