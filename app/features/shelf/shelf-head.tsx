/** The header of the shelf: its name, what can be made, and which of its three lists is shown. */
import { router } from 'expo-router';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import type { ShelfKind } from '../../api/shelf-hooks';
import { useWide } from '../../ui/hooks';
import { Choice } from '../../ui/pieces';
import { Title } from '../../ui/text';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

type Shown = ShelfKind | 'notice';
const WHAT: { value: Shown; label: string }[] = [
  { value: 'kit', label: TEXT.kits },
  { value: 'form', label: TEXT.forms },
  { value: 'notice', label: TEXT.notices },
];

interface Props {
  what: Shown;
  /** Absent if kits and forms are on another screen. */
  onWhat?: (what: ShelfKind) => void;
  acts: ReactNode;
  children?: ReactNode;
}

export function ShelfHead({ what, onWhat, acts, children }: Props) {
  const wide = useWide();
  const show = (next: Shown) => {
    if (next === 'notice') router.navigate('/notices');
    else if (onWhat) onWhat(next);
    else router.navigate(`/shelf?what=${next}`);
  };
  return (
    <>
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: 12 }}>
        <Title style={wide ? { flex: 1 } : null}>{TEXT.shelf}</Title>
        <Row gap={8} align="stretch" wrap>
          {acts}
        </Row>
      </View>
      <Row gap={12} wrap>
        <Choice label={TEXT.whatIsShown} value={what} options={WHAT} onChange={show} />
        {children}
      </Row>
    </>
  );
}
