/** Packets at a gate for a long time: whom they wait for, and what can be done about it. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Linking, Pressable, View } from 'react-native';
import type { TodayView } from '@gatepath/contract';
import { firstName } from '@gatepath/core/text';
import { usePalette, useWide } from '../../ui/hooks';
import { MoreLink } from '../../ui/more-link';
import { Button, Card, IconButton } from '../../ui/pieces';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { PathStrip } from '../packet-status/path-strip';
import { isDone, type Acts } from '../deals/use-acts';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

type Item = TodayView['still']['items'][number];

const AT_FIRST = { wide: 4, phone: 6 };
const WORDS = { nudge: TEXT.nudge, address: TEXT.correct, host: TEXT.open, sign: TEXT.sign } as const;

const nudgeId = (i: Item) => ({ dealId: i.dealId, id: `nudge ${i.packetId} ${i.partyId}` });

export function StandingStill({ today, acts }: { today: TodayView; acts: Acts }) {
  const p = usePalette();
  const wide = useWide();
  const [all, setAll] = useState(false);
  const items = today.still.items.filter((i) => !isDone(acts.shown, nudgeId(i)));
  const listed = all ? items : items.slice(0, AT_FIRST[wide ? 'wide' : 'phone']);
  if (!today.still.items.length) return null;
  return (
    <Stack gap={8} testID="still">
      <Row align="end" justify="between">
        <Heading>{TEXT.stalled}</Heading>
        <Small>{TEXT.longestFirst}</Small>
      </Row>
      <Card style={{ gap: 0, paddingVertical: 4 }}>
        {listed.map((i, n) => (
          <View key={i.packetId} style={{ borderTopWidth: n ? 1 : 0, borderColor: p.rule }}>
            <HoldUpRow item={i} acts={acts} />
          </View>
        ))}
        {items.length ? null : <Small style={{ paddingVertical: 12 }}>{TEXT.allOfThemWereNudged}</Small>}
        {items.length > listed.length ? (
          <MoreLink onPress={() => setAll(true)}>{TEXT.more(items.length - listed.length + today.still.more)}</MoreLink>
        ) : today.still.more ? (
          <Small style={{ paddingVertical: 8 }}>{TEXT.moreAreShownInTheir(today.still.more)}</Small>
        ) : null}
      </Card>
    </Stack>
  );
}

const stoodWords = (n: number) => (n === 0 ? 'today' : n === 1 ? '1 day' : TEXT.days(n));

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function HoldUpRow({ item, acts }: { item: Item; acts: Acts }) {
  const wide = useWide();
  const open = () => router.push(`/packets/${item.packetId}`);
  const press = () =>
    item.act === 'nudge'
      ? acts.act({
          ...nudgeId(item),
          title: TEXT.nudgeWho(firstName(item.who)),
          act: { do: 'nudge', packetId: item.packetId, partyId: item.partyId },
        })
      : open();
  const strip = {
    status: 'at_gate' as const,
    gate: item.gate,
    path: item.gates.map((partyIds) => ({ partyIds })),
    parties: item.parties,
  };
  const days = (
    <Strong tone={item.days > 2 ? 'stop' : item.days ? 'act' : 'plain'} style={{ width: wide ? 64 : undefined }}>
      {stoodWords(item.days)}
    </Strong>
  );
  const act = (
    <Row gap={4}>
      {item.phone ? (
        <IconButton
          name="phone"
          label={TEXT.call(item.who)}
          onPress={() => void Linking.openURL(`tel:${(item.phone ?? '').replace(/[^\d+]/g, '')}`)}
        />
      ) : null}
      <Button
        onPress={press}
        label={`${WORDS[item.act]} ${firstName(item.who)}: ${item.name}`}
        testID={`still-${item.act}`}
      >
        {WORDS[item.act]}
      </Button>
    </Row>
  );
  const name = (
    <Pressable
      role="link"
      onPress={open}
      style={{ minHeight: 44, justifyContent: 'center', flex: wide ? 1 : undefined }}
    >
      <Strong numberOfLines={1}>{item.name}</Strong>
      <Small numberOfLines={1}>{item.address}</Small>
    </Pressable>
  );
  if (wide)
    return (
      <Row testID="still-row" gap={12} style={{ minHeight: 54 }}>
        {days}
        {name}
        <View style={{ maxWidth: 230, height: 30, overflow: 'hidden' }}>
          <PathStrip packet={strip} />
        </View>
        <Small grow numberOfLines={2}>
          {item.words}
        </Small>
        {act}
      </Row>
    );
  return (
    <Stack testID="still-row" gap={8} style={{ paddingVertical: 10 }}>
      <Row gap={8} align="stretch" justify="between">
        <Stack grow>{name}</Stack>
        {days}
      </Row>
      <PathStrip packet={strip} />
      <Row gap={8}>
        <Body grow style={{ fontFamily: FONT.text }}>
          {item.words}
        </Body>
        {act}
      </Row>
    </Stack>
  );
}
