/** Which home a row is for, if the table could not say. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { useSettled } from '../../ui/hooks';
import { Input } from '../../ui/input';
import { Button } from '../../ui/pieces';
import { Small } from '../../ui/text';
import { TEXT } from './words';
import { Actions, Stack } from '../../ui/layout';

const SHOWN = 6;

export function HomeChooser({ home, onChoose }: { home: string; onChoose: (dealId: string) => void }) {
  const [search, setSearch] = useState(home);
  const wanted = useSettled(search.trim(), 250);
  const found = useQuery({
    queryKey: keys.dealHomes(wanted),
    queryFn: () => call('deals', { query: { kind: 'tenancy', status: 'open', search: wanted, limit: SHOWN } }),
    enabled: wanted.length > 1,
  });
  const items = found.data?.items ?? [];
  return (
    <Stack gap={8} testID="home-chooser">
      <Input label={TEXT.findTheTenancy} value={search} onChangeText={setSearch} maxLength={120} testID="find-home" />
      {found.isSuccess && !items.length ? <Small>{TEXT.noActiveTenancyHasThat}</Small> : null}
      <Actions>
        {items.map((d) => (
          <Button key={d.id} onPress={() => onChoose(d.id)} testID="choose-home">
            {d.city ? `${d.address}, ${d.city}` : d.address}
          </Button>
        ))}
      </Actions>
    </Stack>
  );
}
