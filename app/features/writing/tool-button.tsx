/** One way a text can look, on or off. */
import { Pressable } from 'react-native';
import { usePalette } from '../../ui/hooks';
import { Icon, type IconName } from '../../ui/icon';
import { webProps } from '../../ui/web';

interface Props {
  icon: IconName;
  label: string;
  on?: boolean;
  disabled?: boolean;
  onPress: () => void;
}

export function ToolButton({ icon, label, on, disabled, onPress }: Props) {
  const p = usePalette();
  return (
    <Pressable
      role="button"
      aria-label={label}
      aria-disabled={disabled}
      disabled={disabled}
      {...webProps({ 'aria-pressed': on ?? false })}
      onPress={onPress}
      style={{
        width: 44,
        height: 44,
        borderRadius: 10,
        alignItems: 'center',
        justifyContent: 'center',
        backgroundColor: on ? p.brickWash : 'transparent',
        opacity: disabled ? 0.35 : 1,
      }}
    >
      <Icon name={icon} color={p.ink} />
    </Pressable>
  );
}
