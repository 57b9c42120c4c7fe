/** The panels of a wide desk, folded to a strip at its edge: one of them opens beside the pages on demand. */
import { Pressable } from 'react-native';
import { usePalette } from '../../ui/hooks';
import { Small } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { webProps } from '../../ui/web';
import { Badge } from './desk-header';
import { PANELS, type DeskPanel } from './panels';
import { useDesk } from './use-desk';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

/** Width of the strip in pixels. */
const STRIP = 72;

interface Props {
  open: DeskPanel | null;
  onOpen: (panel: DeskPanel | null) => void;
}

export function PanelStrip({ open, onOpen }: Props) {
  const p = usePalette();
  const isForm = useDesk((s) => s.setup.what === 'form');
  return (
    <Stack
      role="navigation"
      aria-label={TEXT.partsOfTheDesk}
      gap={8}
      style={{ width: STRIP, borderLeftWidth: 1, borderColor: p.rule, padding: 6 }}
    >
      {PANELS.map(({ value, label }) => {
        const isOpen = value === open;
        return (
          <Pressable
            key={value}
            role="button"
            testID={`tab-${value}`}
            onPress={() => onOpen(isOpen ? null : value)}
            {...webProps({ 'aria-expanded': isOpen })}
            style={{
              minHeight: 56,
              gap: 4,
              borderRadius: 12,
              alignItems: 'center',
              justifyContent: 'center',
              backgroundColor: isOpen ? p.ink : 'transparent',
            }}
          >
            <Small style={{ color: isOpen ? p.paper : p.ink, fontFamily: FONT.bold }}>
              {value === 'path' && isForm ? TEXT.roles : label}
            </Small>
            <Badge panel={value} />
          </Pressable>
        );
      })}
    </Stack>
  );
}
