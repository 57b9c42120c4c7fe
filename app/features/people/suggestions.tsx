/** People of the address book who match what is typed; one touch fills them in. */
import { Pressable } from 'react-native';
import type { PersonSummary } from '@gatepath/contract';
import { usePeople } from '../../api/deal-hooks';
import { usePalette, useSettled } from '../../ui/hooks';
import { itemsOf } from '../../ui/list-page';
import { Small, Strong } from '../../ui/text';
import { TEXT } from './words';
import { Stack } from '../../ui/layout';

const WAIT_MS = 250;
const MOST = 4;

export function Suggestions({ name, onPick }: { name: string; onPick: (person: PersonSummary) => void }) {
  const p = usePalette();
  const settled = useSettled(name.trim(), WAIT_MS);
  const people = usePeople(settled, settled.length > 1 && settled === name.trim());
  const list = settled.length > 1 ? itemsOf(people).slice(0, MOST) : [];
  if (!list.length) return null;
  return (
    <Stack role="list" aria-label={TEXT.fromTheAddressBook} gap={4}>
      {list.map((x) => (
        <Pressable
          key={x.id}
          role="button"
          testID="suggestion"
          aria-label={TEXT.takeFromTheAddressBook(x.name)}
          onPress={() => onPick(x)}
          style={{
            minHeight: 44,
            justifyContent: 'center',
            backgroundColor: p.bench,
            borderRadius: 8,
            paddingHorizontal: 12,
            paddingVertical: 4,
          }}
        >
          <Strong numberOfLines={1}>{x.name}</Strong>
          <Small numberOfLines={1}>{[x.company, x.email].filter(Boolean).join(' · ') || TEXT.noAddressYet}</Small>
        </Pressable>
      ))}
    </Stack>
  );
}
