/** A menu at its button: the arrow keys and first letters go through it, Escape closes it. */
import * as Drop from '@radix-ui/react-dropdown-menu';
import { useRef, useState, type ReactElement, type ReactNode } from 'react';
import { useWindowDimensions, View } from 'react-native';
import { usePalette } from './hooks';
import { Body } from './text';
import { elementOf, webStyle } from './web';

interface Props {
  anchor: (open: () => void) => ReactElement;
  children: (close: (then: () => void) => () => void) => ReactNode;
}

/** @param children  the items; each closes the menu and then does its act */
export function DropMenu({ anchor, children }: Props) {
  const p = usePalette();
  const { height } = useWindowDimensions();
  const [open, setOpen] = useState(false);
  const around = useRef<View>(null);
  return (
    <Drop.Root open={open} onOpenChange={setOpen}>
      <View ref={around}>
        {anchor(() => setOpen(true))}
        {/* Where the menu hangs; the button itself is the house's own. */}
        <Drop.Trigger asChild>
          <View aria-hidden tabIndex={-1} style={webStyle({ position: 'absolute', inset: 0, pointerEvents: 'none' })} />
        </Drop.Trigger>
      </View>
      <Drop.Portal>
        <Drop.Content
          asChild
          align="start"
          sideOffset={4}
          collisionPadding={8}
          onCloseAutoFocus={(e) => {
            e.preventDefault();
            elementOf(around)?.querySelector<HTMLElement>('[role="button"]')?.focus({ preventScroll: true });
          }}
        >
          <View
            style={webStyle({
              backgroundColor: p.sheet,
              borderRadius: 12,
              borderWidth: 1,
              borderColor: p.rule,
              paddingVertical: 6,
              minWidth: 190,
              maxWidth: 420,
              maxHeight: height * 0.7,
              overflow: 'scroll',
            })}
          >
            {children((then) => then)}
          </View>
        </Drop.Content>
      </Drop.Portal>
    </Drop.Root>
  );
}

export function MenuItem({ title, onPress, testID }: { title: string; onPress: () => void; testID?: string }) {
  return (
    <Drop.Item asChild onSelect={onPress} textValue={title}>
      <View
        testID={testID}
        style={webStyle({ minHeight: 46, paddingHorizontal: 16, justifyContent: 'center', cursor: 'pointer' })}
      >
        <Body>{title}</Body>
      </View>
    </Drop.Item>
  );
}
