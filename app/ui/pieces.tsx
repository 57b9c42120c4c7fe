/** Shared parts: page frame, cards, buttons, notes, empty states. */
import type { ReactNode } from 'react';
import { ActivityIndicator, Pressable, ScrollView, View, type StyleProp, type ViewStyle } from 'react-native';
import { usePalette } from './hooks';
import { Icon, type IconOf } from './icon';
import type { Gap } from './layout';
import { Body, Small, Strong } from './text';
import { FONT } from './theme';
import { pillFrame, pillWords } from './pill-frame';
import { Radio, RadioGroup } from './radio';
import { webProps } from './web';
import { TEXT } from './words';

export function Card({
  children,
  gap = 8,
  style,
  testID,
}: {
  children: ReactNode;
  gap?: Gap;
  style?: StyleProp<ViewStyle>;
  testID?: string;
}) {
  const p = usePalette();
  return (
    <View
      testID={testID}
      style={[
        { backgroundColor: p.sheet, borderColor: p.rule, borderWidth: 1, borderRadius: 16, padding: 16, gap },
        style,
      ]}
    >
      {children}
    </View>
  );
}

type Kind = 'main' | 'plain' | 'quiet' | 'stop';

interface ButtonProps {
  children: string;
  onPress: () => void;
  kind?: Kind;
  icon?: IconOf;
  disabled?: boolean;
  busy?: boolean;
  testID?: string;
  label?: string;
  style?: StyleProp<ViewStyle>;
  large?: boolean;
  /** As wide as its words, in a stack. */
  fit?: boolean;
  /** Takes the remaining width of a row. */
  grow?: boolean;
  /** The main act of a screen; the focus moves to it after the one before. */
  act?: boolean;
}

/** A button: one `main` per screen, `plain` beside it, `quiet` for rare acts, `stop` for ends. */
export function Button({
  children,
  onPress,
  kind = 'plain',
  icon,
  disabled,
  busy,
  testID,
  label,
  style,
  large,
  fit,
  grow,
  act,
}: ButtonProps) {
  const p = usePalette();
  const off = disabled || busy;
  const background = kind === 'main' ? p.brick : kind === 'stop' ? p.wine : 'transparent';
  const color = kind === 'main' || kind === 'stop' ? p.onBrick : kind === 'quiet' ? p.brick : p.ink;
  return (
    <Pressable
      role="button"
      testID={testID}
      aria-label={label}
      aria-disabled={off}
      disabled={off}
      onPress={onPress}
      {...(act ? { dataSet: { act: 'yes' } } : {})}
      style={({ pressed }) => [
        {
          minHeight: large ? 56 : 46,
          paddingHorizontal: kind === 'quiet' ? 8 : 18,
          paddingVertical: 6,
          borderRadius: 12,
          borderWidth: kind === 'plain' ? 1.5 : 0,
          borderColor: p.ink,
          backgroundColor: background,
          opacity: off ? 0.45 : pressed ? 0.8 : 1,
          flexDirection: 'row',
          alignItems: 'center',
          justifyContent: 'center',
          gap: 8,
        },
        fit ? { alignSelf: 'flex-start' } : undefined,
        grow ? { flex: 1 } : undefined,
        style,
      ]}
    >
      {busy ? (
        <ActivityIndicator size={18} color={color} aria-hidden />
      ) : icon ? (
        <Icon name={icon} color={color} size={20} />
      ) : null}
      <Body style={{ color, fontFamily: FONT.bold, fontSize: large ? 19 : 16, textAlign: 'center', flexShrink: 1 }}>
        {children}
      </Body>
    </Pressable>
  );
}

/** An icon button of 44 points, whatever the size of its icon. */
export function IconButton({
  name,
  label,
  onPress,
  disabled,
  testID,
  color,
  on,
}: {
  name: IconOf;
  label: string;
  onPress: () => void;
  disabled?: boolean;
  testID?: string;
  color?: string;
  /** For a toggle: whether it is on. */
  on?: boolean;
}) {
  const p = usePalette();
  return (
    <Pressable
      role="button"
      aria-label={label}
      aria-disabled={disabled}
      disabled={disabled}
      onPress={onPress}
      testID={testID}
      {...(on === undefined ? {} : webProps({ 'aria-pressed': on }))}
      style={({ pressed }) => ({
        width: 44,
        height: 44,
        borderRadius: 10,
        backgroundColor: on ? p.brickWash : 'transparent',
        alignItems: 'center',
        justifyContent: 'center',
        opacity: disabled ? 0.35 : pressed ? 0.6 : 1,
      })}
    >
      <Icon name={name} color={color} />
    </Pressable>
  );
}

type Tone = 'stop' | 'warn' | 'good' | 'plain';

/** A message beside what it is about, with a colored edge. */
export function Note({
  tone,
  title,
  children,
  action,
  testID,
}: {
  tone: Tone;
  title: string;
  children?: ReactNode;
  action?: ReactNode;
  testID?: string;
}) {
  const p = usePalette();
  const color = { stop: p.wine, warn: p.ochre, good: p.moss, plain: p.slate }[tone];
  return (
    <View
      role={tone === 'stop' ? 'alert' : 'status'}
      testID={testID}
      style={{
        backgroundColor: p.sheet,
        borderWidth: 1,
        borderColor: p.rule,
        borderLeftWidth: 6,
        borderLeftColor: color,
        borderRadius: 12,
        padding: 12,
        gap: 4,
      }}
    >
      <Strong>{title}</Strong>
      {typeof children === 'string' ? <Small>{children}</Small> : children}
      {action}
    </View>
  );
}

export function Loading({ what, level }: { what: string; level?: number }) {
  const p = usePalette();
  return (
    <View role="status" style={{ padding: 32, alignItems: 'center', gap: 12 }}>
      <ActivityIndicator color={p.brick} aria-hidden />
      <Small level={level}>{TEXT.loading(what)}</Small>
    </View>
  );
}

/** An error in words, with a way to try again. */
export function Trouble({ error, retry }: { error: unknown; retry?: () => void }) {
  const message = error instanceof Error ? error.message : TEXT.somethingWentWrong;
  return (
    <Note
      tone="stop"
      title={message}
      testID="trouble"
      action={
        retry ? (
          <Button kind="quiet" onPress={retry} fit>
            {TEXT.tryAgain}
          </Button>
        ) : null
      }
    />
  );
}

/** Why an act was refused; nothing otherwise. */
export function ActError({ of }: { of: { isError: boolean; error: unknown } }) {
  return of.isError ? <Trouble error={of.error} /> : null;
}

/** A column in the middle of a wide screen, the whole width of a phone. */
export function Page({ children, max = 760 }: { children: ReactNode; max?: number }) {
  const p = usePalette();
  return (
    <ScrollView
      style={{ flex: 1, backgroundColor: p.paper }}
      contentContainerStyle={{ padding: 16, paddingBottom: 40, alignItems: 'center' }}
    >
      <View role="main" style={{ width: '100%', maxWidth: max, gap: 16 }}>
        {children}
      </View>
    </ScrollView>
  );
}

/** Several choices of which one is chosen: a row of buttons. */
export function Choice<T extends string>({
  value,
  options,
  onChange,
  label,
  wrap,
}: {
  value: T;
  options: { value: T; label: string }[];
  onChange: (v: T) => void;
  label: string;
  wrap?: boolean;
}) {
  const p = usePalette();
  return (
    <RadioGroup
      label={label}
      value={value}
      onChange={(v) => {
        const chosen = options.find((o) => o.value === v);
        if (chosen) onChange(chosen.value);
      }}
      style={{ flexDirection: 'row', gap: 8, flexWrap: wrap ? 'wrap' : 'nowrap' }}
    >
      {options.map((o) => {
        const on = o.value === value;
        return (
          <Radio key={o.value} value={o.value} label={o.label} testID={`choice-${o.value}`} style={pillFrame(p, on)}>
            <Body style={pillWords(p, on)}>{o.label}</Body>
          </Radio>
        );
      })}
    </RadioGroup>
  );
}
