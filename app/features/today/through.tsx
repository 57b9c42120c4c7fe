/** What was executed since the member last dismissed it. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable } from 'react-native';
import type { TodayView } from '@gatepath/contract';
import { useSeen, useToday } from '../../api/deal-hooks';
import { useSession } from '../../api/hooks';
import { GatePost } from '../../ui/gate';
import { usePalette, useWide } from '../../ui/hooks';
import { ActError, Button, Card } from '../../ui/pieces';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { when } from '../../ui/dates';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

const AT_FIRST = { wide: 2, phone: 8 };

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
export function Through({ today }: { today: TodayView }) {
  const p = usePalette();
  const wide = useWide();
  const session = useSession();
  const asked = useToday();
  const seen = useSeen();
  const [before, setBefore] = useState<string | null>(null);
  const { items, more, since } = today.through;
  if (!items.length && !before) return null;
  const listed = items.slice(0, AT_FIRST[wide ? 'wide' : 'phone']);
  const behind = items.length - listed.length + more;
  // Up to the moment this was queried: what is executed meanwhile is not dismissed with it.
  const putAway = () => {
    setBefore(since);
    const latest = items
      .map((i) => i.at)
      .sort()
      .at(-1);
    seen.mutate(latest ?? new Date(asked.dataUpdatedAt).toISOString());
  };
  return (
    <Stack gap={8} testID="through">
      <Heading>{TEXT.completed}</Heading>
      <Card style={{ gap: 0, paddingVertical: 4 }}>
        {listed.map((i, n) => (
          <Pressable
            key={i.packetId}
            role="link"
            onPress={() => router.push(`/packets/${i.packetId}`)}
            style={{
              flexDirection: 'row',
              gap: 12,
              alignItems: 'center',
              minHeight: 54,
              borderTopWidth: n ? 1 : 0,
              borderColor: p.rule,
            }}
          >
            <GatePost state="passed" n={1} size={24} />
            <Stack grow>
              <Strong numberOfLines={1}>{`${i.name}, ${i.address}`}</Strong>
              <Small numberOfLines={1}>{`${when(i.at, session.data?.firm?.timeZone)}, ${i.detail}`}</Small>
            </Stack>
          </Pressable>
        ))}
        <ActError of={seen} />
        <Row justify="between" style={{ minHeight: 46 }}>
          {items.length ? (
            <Button kind="quiet" busy={seen.isPending} onPress={putAway} testID="put-away">
              {TEXT.dismiss}
            </Button>
          ) : (
            <>
              <Body>{TEXT.dismissed}</Body>
              <Button kind="quiet" onPress={() => before && seen.mutate(before, { onSuccess: () => setBefore(null) })}>
                {TEXT.takeBack}
              </Button>
            </>
          )}
          {behind ? <Small>{TEXT.andMore(behind)}</Small> : null}
        </Row>
      </Card>
    </Stack>
  );
}
