/** A menu at its button. Paper's own takes the focus when it is mounted closed, so it is mounted open only. */
import { useState, type ReactElement, type ReactNode } from 'react';
import { Menu } from 'react-native-paper';

interface Props {
  anchor: (open: () => void) => ReactElement;
  children: (close: (then: () => void) => () => void) => ReactNode;
}

export function DropMenu({ anchor, children }: Props) {
  const [open, setOpen] = useState(false);
  const button = anchor(() => setOpen(true));
  if (!open) return button;
  const close = (then: () => void) => () => {
    setOpen(false);
    then();
  };
  return (
    <Menu visible onDismiss={() => setOpen(false)} anchor={button}>
      {children(close)}
    </Menu>
  );
}
