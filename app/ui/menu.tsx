/** A menu at its button: arrow keys and first letters move through it, Escape closes it. */
import * as Drop from '@radix-ui/react-dropdown-menu';
import { useRef, useState, type ReactElement, type ReactNode } from 'react';
import { View } from 'react-native';
import { usePalette } from './hooks';
import { Body } from './text';
import { elementOf, webStyle } from './web';

interface Props {
  anchor: (open: () => void) => ReactElement;
  /** The items; choosing one closes the menu. */
  children: ReactNode;
  /** Moves the focus when the menu closes; by default to the button. */
  returnTo?: () => void;
}

export function DropMenu({ anchor, children, returnTo }: Props) {
  const p = usePalette();
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
        {/* Elements of the web, and not views: those do not hear all that the library listens for. */}
        <Drop.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          onCloseAutoFocus={(e) => {
            e.preventDefault();
            if (returnTo) return returnTo();
            elementOf(around)?.querySelector<HTMLElement>('[role="button"]')?.focus({ preventScroll: true });
          }}
          style={{
            backgroundColor: p.sheet,
            borderRadius: 12,
            border: `1px solid ${p.rule}`,
            padding: '6px 0',
            minWidth: 190,
            maxWidth: 420,
            // No higher than what is free above or below the button.
            maxHeight: 'min(70vh, var(--radix-dropdown-menu-content-available-height))',
            overflowY: 'auto',
            zIndex: 10,
          }}
        >
          {children}
        </Drop.Content>
      </Drop.Portal>
    </Drop.Root>
  );
}

interface Item {
  title: string;
  onPress: () => void;
  testID?: string;
}

export interface ItemMenuProps extends Omit<Props, 'children'> {
  items: Item[];
}

/** A menu of plain items. */
export function ItemMenu({ items, ...menu }: ItemMenuProps) {
  return (
    <DropMenu {...menu}>
      {items.map((item) => (
        <MenuItem key={item.title} {...item} />
      ))}
    </DropMenu>
  );
}

export function MenuItem({ title, onPress, testID }: Item) {
  return (
    <Drop.Item
      onSelect={onPress}
      textValue={title}
      data-testid={testID}
      style={{ minHeight: 46, padding: '0 16px', display: 'flex', alignItems: 'center', cursor: 'pointer' }}
    >
      <Body>{title}</Body>
    </Drop.Item>
  );
}
