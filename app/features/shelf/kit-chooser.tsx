/** Kits for a deal, first those that meet most of what it needs. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable } from 'react-native';
import { count, listWords } from '@gatepath/core/text';
import { useDealKits } from '../../api/shelf-hooks';
import { usePalette } from '../../ui/hooks';
import { Button, Loading, Trouble } from '../../ui/pieces';
import { Body, Small, Strong } from '../../ui/text';
import { SlotPath } from './slot-path';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** Number of kits shown at first. */
const AT_FIRST = 5;

export function KitChooser({ dealId }: { dealId: string }) {
  const p = usePalette();
  const [open, setOpen] = useState(false);
  const [all, setAll] = useState(false);
  const kits = useDealKits(dealId, open);
  if (!open)
    return (
      <Button icon="pages" onPress={() => setOpen(true)} testID="use-kit">
        {TEXT.useAKit}
      </Button>
    );
  const items = kits.data?.items ?? [];
  return (
    <Stack gap={8} testID="kit-chooser">
      {kits.isPending ? <Loading what={TEXT.theKits} /> : null}
      {kits.isError ? <Trouble error={kits.error} retry={() => void kits.refetch()} /> : null}
      {kits.isSuccess && !items.length ? <Body>{TEXT.noKit}</Body> : null}
      {(all ? items : items.slice(0, AT_FIRST)).map((k) => (
        <Pressable
          key={k.id}
          role="link"
          testID="kit-choice"
          aria-label={TEXT.kitToUse(k.name)}
          onPress={() => router.push(`/deals/${dealId}/kit/${k.id}`)}
          style={{ gap: 4, borderWidth: 1, borderColor: p.rule, borderRadius: 12, padding: 12 }}
        >
          <Strong>{k.name}</Strong>
          <SlotPath slots={k.slots} gates={k.gates} />
          <Small>
            {[
              count(k.papers, 'paper'),
              k.meets.length ? TEXT.meets(listWords(k.meets)) : '',
              k.missing.length ? TEXT.noOneYet(listWords(k.missing)) : '',
            ]
              .filter(Boolean)
              .join('; ')}
          </Small>
        </Pressable>
      ))}
      <Row gap={8} align="stretch">
        {!all && items.length > AT_FIRST ? (
          <Button kind="quiet" onPress={() => setAll(true)}>
            {TEXT.showAll(items.length)}
          </Button>
        ) : null}
        <Button kind="quiet" onPress={() => setOpen(false)}>
          {TEXT.close}
        </Button>
      </Row>
    </Stack>
  );
}
