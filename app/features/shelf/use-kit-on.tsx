/** The kits that can be used on the selected deals. */
import { router } from 'expo-router';
import type { DealSummary } from '@gatepath/contract';
import { useShelf } from '../../api/shelf-hooks';
import { itemsOf } from '../../ui/list-page';
import { DropMenu, MenuItem } from '../../ui/menu';
import { Button } from '../../ui/pieces';
import { TEXT } from './words';

export function UseKitOn({ deals }: { deals: DealSummary[] }) {
  const shelf = useShelf('kit', '');
  const kits = itemsOf(shelf).filter((k) => k.edition > 0);
  if (!kits.length) return null;
  const ids = deals.map((d) => d.id).join(',');
  return (
    <DropMenu
      anchor={(open) => (
        <Button onPress={open} testID="hand-kit">
          {TEXT.useAKit}
        </Button>
      )}
    >
      {kits.map((k) => (
        <MenuItem key={k.id} title={k.name} onPress={() => router.push(`/shelf/several?kitId=${k.id}&deals=${ids}`)} />
      ))}
      {shelf.hasNextPage ? <MenuItem title={TEXT.moreKits} onPress={() => void shelf.fetchNextPage()} /> : null}
    </DropMenu>
  );
}
