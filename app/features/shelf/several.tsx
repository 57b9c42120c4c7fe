/** One kit for several deals: a row per deal with what was found, and one act for all that are checked. */
import { useQueries, useQueryClient } from '@tanstack/react-query';
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import type { KitTrial } from '@gatepath/contract';
import { count, firstName, listWords } from '@gatepath/core/text';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { useShelfItem } from '../../api/shelf-hooks';
import { usePalette } from '../../ui/hooks';
import { NotReady, isReady } from '../../ui/not-ready';
import { Button, Card, IconButton, Page } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Small, Strong, Title } from '../../ui/text';
import { canSend } from './can-send';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

/** Maximum number of selected deals. */
const MOST = 100;

/** What happened to a deal's row. */
type Gone = { packetId: string; waits: boolean } | { problem: string };

// eslint-disable-next-line max-lines-per-function -- rows, and the run over them
export function SeveralDeals() {
  const p = usePalette();
  const client = useQueryClient();
  const { kitId, deals } = useLocalSearchParams<{ kitId: string; deals: string }>();
  const ids = [...new Set((deals ?? '').split(',').filter(Boolean))].slice(0, MOST);
  const kit = useShelfItem(kitId ?? '');
  const rows = useQueries({
    queries: ids.map((dealId) => ({
      queryKey: keys.kitTrial(dealId, kitId ?? '', {}),
      queryFn: () => call('tryKit', { params: { dealId, shelfId: kitId ?? '' }, body: {} }),
      staleTime: Infinity,
      gcTime: 0,
    })),
  });
  const [turned, setTurned] = useState<Record<string, boolean>>({});
  const [gone, setGone] = useState<Record<string, Gone>>({});
  const [running, setRunning] = useState(false);
  if (!isReady(kit)) return <NotReady query={kit} what={TEXT.theKit} />;
  const isOn = (id: string, t: KitTrial | undefined) =>
    !!t && !gone[id] && canSend(t) && (turned[id] ?? (!t.uses && t.slots.every((s) => s.empty !== 'nobody')));
  const going = ids.filter((id, i) => isOn(id, rows[i]?.data));
  const run = async () => {
    setRunning(true);
    // One after another: what is done stays done, whatever happens to the rest.
    for (const dealId of going) {
      const uses = rows[ids.indexOf(dealId)]?.data?.uses;
      try {
        const packet = await call('useKit', {
          params: { dealId, shelfId: kitId ?? '' },
          body: { send: true, despiteWarnings: true, saveValues: false, uses },
        });
        setGone((was) => ({ ...was, [dealId]: { packetId: packet.id, waits: packet.status === 'drafting' } }));
      } catch (error) {
        const problem = error instanceof Error ? error.message : String(error);
        setGone((was) => ({ ...was, [dealId]: { problem } }));
      }
    }
    setRunning(false);
    void client.invalidateQueries({ queryKey: keys.deals });
  };
  const done = Object.keys(gone).length;
  return (
    <Page max={820}>
      <Row gap={4}>
        <IconButton name="arrow-left" label={TEXT.backToTheDeals} onPress={() => router.navigate('/deals')} />
        <Stack grow>
          <Small>{TEXT.forWord(count(ids.length, 'deal'))}</Small>
          <Title numberOfLines={2}>{kit.data.name}</Title>
        </Stack>
      </Row>
      <Card style={{ gap: 0 }}>
        {ids.map((id, i) => (
          <DealRow
            key={id}
            address={rows[i]?.data?.address ?? TEXT.aDeal}
            trial={rows[i]?.data}
            error={rows[i]?.error ?? null}
            gone={gone[id]}
            on={isOn(id, rows[i]?.data)}
            onTurn={(on) => setTurned((was) => ({ ...was, [id]: on }))}
          />
        ))}
      </Card>
      {running ? (
        <ProgressBar progress={done / Math.max(1, done + going.length)} color={p.brick} aria-label={TEXT.sending} />
      ) : null}
      <Button kind="main" disabled={!going.length} busy={running} onPress={() => void run()} testID="send-several">
        {going.length
          ? TEXT.sendPackets(count(going.length, 'packet'))
          : done
            ? TEXT.nothingLeftToSend
            : TEXT.nothingToSend}
      </Button>
    </Page>
  );
}

function DealRow({
  address,
  trial,
  error,
  gone,
  on,
  onTurn,
}: {
  address: string;
  trial: KitTrial | undefined;
  error: Error | null;
  gone: Gone | undefined;
  on: boolean;
  onTurn: (on: boolean) => void;
}) {
  const p = usePalette();
  const hint = trial
    ? [
        listWords(trial.people.map((x) => firstName(x.name))) || 'nobody',
        ...trial.findings.map((f) => f.sentence),
      ].join('. ')
    : (error?.message ?? TEXT.beingPrepared);
  return (
    <View testID="several-row" style={{ borderBottomWidth: 1, borderColor: p.rule, paddingVertical: 6 }}>
      {gone ? (
        <View style={{ minHeight: 44, justifyContent: 'center' }}>
          <Strong>{address}</Strong>
          {'packetId' in gone ? (
            <Button kind="quiet" onPress={() => router.push(`/packets/${gone.packetId}`)} fit>
              {gone.waits ? TEXT.goesOutAtItsSet : TEXT.sentSeeThePacket}
            </Button>
          ) : (
            <Body tone="stop">{gone.problem}</Body>
          )}
        </View>
      ) : trial && canSend(trial) ? (
        <Switch label={address} hint={hint} on={on} onChange={onTurn} testID={`several-${address}`} />
      ) : (
        <View style={{ minHeight: 44, justifyContent: 'center' }}>
          <Strong>{address}</Strong>
          <Small tone={trial || error ? 'stop' : 'plain'}>{hint}</Small>
        </View>
      )}
    </View>
  );
}
