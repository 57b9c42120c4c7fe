/** One file of the whole deal: made in the background with its progress, then downloaded. */
import { useQuery } from '@tanstack/react-query';
import { Linking, View } from 'react-native';
import type { DealView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { useAct } from '../../api/act';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { usePalette } from '../../ui/hooks';
import { ActError, Button, Card } from '../../ui/pieces';
import { Body, Heading, Small } from '../../ui/text';
import { when } from '../../ui/dates';
import { TEXT } from './words';
import { Actions, Stack } from '../../ui/layout';

const LOOK_MS = 700;
const size = (bytes: number) =>
  bytes > 900_000 ? TEXT.mb((bytes / 1_000_000).toFixed(1)) : TEXT.kb(Math.max(1, Math.round(bytes / 1_000)));

export function BinderCard({ deal }: { deal: DealView }) {
  const p = usePalette();
  const key = keys.binder(deal.id);
  const params = { dealId: deal.id };
  const binder = useQuery({
    queryKey: key,
    queryFn: () => call('binder', { params }),
    refetchInterval: (q) => (q.state.data?.status === 'making' ? LOOK_MS : false),
  });
  const make = useAct(() => call('makeBinder', { params }), { shows: key });
  const b = binder.data;
  const making = b?.status === 'making';
  return (
    <Card testID="binder">
      <Heading>{TEXT.binder}</Heading>
      <Body>{TEXT.executedPapersOriginalFiles}</Body>
      {making ? (
        <Stack role="status" gap={8}>
          <Small>{b.pieces ? TEXT.preparingOfFiles(b.done, b.pieces) : TEXT.preparing}</Small>
          <View style={{ height: 6, borderRadius: 3, backgroundColor: p.rule }}>
            <View
              style={{
                height: 6,
                borderRadius: 3,
                backgroundColor: p.moss,
                width: `${b.pieces ? Math.round((100 * b.done) / b.pieces) : 4}%`,
              }}
            />
          </View>
        </Stack>
      ) : null}
      {b?.status === 'failed' ? <Small tone="stop">{TEXT.theBinderCouldNotBe}</Small> : null}
      <ActError of={make} />
      <Actions>
        {b?.bytes ? (
          <Button
            icon="download"
            onPress={() => void Linking.openURL(urlOf('binderFile', params))}
            testID="download-binder"
          >
            {TEXT.download(size(b.bytes))}
          </Button>
        ) : null}
        <Button
          kind={b?.bytes ? 'quiet' : 'plain'}
          busy={make.isPending}
          disabled={making}
          onPress={() => make.mutate()}
          testID="make-binder"
        >
          {b?.bytes ? TEXT.makeItAgain : TEXT.makeTheBinder}
        </Button>
      </Actions>
      {b?.madeAt ? <Small>{TEXT.made(when(b.madeAt, deal.timeZone))}</Small> : null}
    </Card>
  );
}
