/** The week as a line of posts, one per day, with what is due at its post; what is late is before the first. */
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { TodayView } from '@gatepath/contract';
import { addDays, shortDay } from '@gatepath/core/calendar';
import { usePalette, useWide } from '../../ui/hooks';
import { MoreLink } from '../../ui/more-link';
import { Card } from '../../ui/pieces';
import { Heading, Small } from '../../ui/text';
import { FONT } from '../../ui/theme';
import { TEXT } from './words';
import { Row, Stack } from '../../ui/layout';

type Item = TodayView['week']['items'][number];

const DAYS = 7;
/** Number of things at one post; the rest is counted. */
const AT_A_POST = 2;
/** Number of posts side by side on a wide screen. */
const IN_A_ROW = 7;

interface PostOf {
  /** ISO day; null for what is late. */
  day: string | null;
  items: Item[];
}

/** Returns the posts of the week. Non-business days without anything are left out, today never is. */
export function postsOfWeek(today: TodayView): PostOf[] {
  const { items } = today.week;
  const late = items.filter((i) => i.day < today.today);
  const days = Array.from({ length: DAYS }, (_, i) => addDays(today.today, i));
  const last = days[DAYS - 1] ?? today.today;
  const posts = days.map((day): PostOf => ({ day, items: items.filter((i) => i.day === day) }));
  const beyond = items.filter((i) => i.day > last);
  const shown = posts.filter((x) => x.items.length || x.day === today.today || !isRest(x.day ?? ''));
  return [
    ...(late.length ? [{ day: null, items: late }] : []),
    ...shown,
    ...beyond.map((i): PostOf => ({ day: i.day, items: [i] })),
  ];
}

const isRest = (day: string) => ['Sat', 'Sun'].includes(shortDay(day).slice(0, 3));

export function Week({ today }: { today: TodayView }) {
  const wide = useWide();
  const [all, setAll] = useState(false);
  const posts = postsOfWeek(today);
  const shown = all ? posts : posts.slice(0, IN_A_ROW);
  const behind = posts.slice(shown.length).reduce((n, x) => n + x.items.length, 0);
  return (
    <Stack gap={8} testID="week">
      <Row align="end" justify="between">
        <Heading>{TEXT.theWeek}</Heading>
        {wide && behind ? <MoreLink onPress={() => setAll(true)}>{TEXT.moreAfterThat(behind)}</MoreLink> : null}
      </Row>
      <Card style={{ paddingVertical: 12 }}>
        {wide ? (
          <Row role="list" align="stretch" wrap style={{ rowGap: 14 }}>
            {shown.map((x, i) => (
              <WidePost
                key={x.day ?? 'late'}
                post={x}
                today={today.today}
                first={i === 0}
                n={Math.min(posts.length, IN_A_ROW)}
              />
            ))}
          </Row>
        ) : (
          <View role="list">
            {posts
              .filter((x) => x.items.length || x.day === today.today)
              .map((x, i, all) => (
                <PhonePost key={x.day ?? 'late'} post={x} today={today.today} last={i === all.length - 1} />
              ))}
          </View>
        )}
        {today.week.more ? <Small>{TEXT.moreAreShownInTheir(today.week.more)}</Small> : null}
      </Card>
    </Stack>
  );
}

const colorOf = (p: ReturnType<typeof usePalette>, item: Item, today: string) =>
  item.what === 'paper' || item.what === 'last_day'
    ? item.day < today
      ? p.wine
      : p.ochre
    : item.what === 'term'
      ? p.slate
      : p.ink;

function DayName({ post, today }: { post: PostOf; today: string }) {
  const p = usePalette();
  if (!post.day)
    return (
      <Small tone="stop" style={{ fontFamily: FONT.bold }}>
        {TEXT.late}
      </Small>
    );
  const [name = '', ...rest] = shortDay(post.day, today).split(' ');
  return (
    <Small style={post.day === today ? { color: p.brick, fontFamily: FONT.bold } : null}>
      {post.day === today ? TEXT.today : `${name} ${rest.join(' ')}`}
    </Small>
  );
}

function WidePost({ post, today, first, n }: { post: PostOf; today: string; first: boolean; n: number }) {
  const p = usePalette();
  const [all, setAll] = useState(false);
  const listed = all ? post.items : post.items.slice(0, AT_A_POST);
  return (
    <Stack role="listitem" gap={8} style={{ width: `${100 / n}%`, paddingRight: 8 }}>
      <DayName post={post} today={today} />
      <Row style={{ marginRight: -8 }}>
        {post.day ? <PostMark on={post.day === today} /> : null}
        <View style={{ flex: 1, height: 3, backgroundColor: post.day || !first ? p.rule : 'transparent' }} />
      </Row>
      {listed.map((i) => (
        <Thing key={i.id} item={i} today={today} />
      ))}
      {post.items.length > listed.length ? (
        <MoreLink onPress={() => setAll(true)}>{TEXT.more(post.items.length - listed.length)}</MoreLink>
      ) : null}
    </Stack>
  );
}

function PhonePost({ post, today, last }: { post: PostOf; today: string; last: boolean }) {
  const p = usePalette();
  const [all, setAll] = useState(false);
  const listed = all ? post.items : post.items.slice(0, AT_A_POST + 1);
  return (
    <Row role="listitem" gap={12} align="stretch">
      <View style={{ alignItems: 'center', width: 16 }}>
        <View style={{ height: 2 }} />
        {post.day ? (
          <PostMark on={post.day === today} />
        ) : (
          <View style={{ height: 22, width: 5, backgroundColor: p.wine, borderRadius: 2 }} />
        )}
        {last ? null : <View style={{ flex: 1, width: 3, backgroundColor: p.rule }} />}
      </View>
      <Stack gap={8} grow style={{ paddingBottom: 14 }}>
        <DayName post={post} today={today} />
        {listed.map((i) => (
          <Thing key={i.id} item={i} today={today} />
        ))}
        {post.items.length > listed.length ? (
          <MoreLink onPress={() => setAll(true)}>{TEXT.more(post.items.length - listed.length)}</MoreLink>
        ) : null}
        {post.items.length ? null : <Small>{TEXT.nothingIsDue}</Small>}
      </Stack>
    </Row>
  );
}

function PostMark({ on }: { on: boolean }) {
  const p = usePalette();
  return <View style={{ width: 8, height: 22, borderRadius: 2, backgroundColor: on ? p.brick : p.slate }} />;
}

function Thing({ item, today }: { item: Item; today: string }) {
  const p = usePalette();
  const late = item.day < today;
  return (
    <Pressable
      role="link"
      testID="week-thing"
      aria-label={`${item.title}, ${item.address}${late ? TEXT.since(shortDay(item.day, today)) : ''}`}
      onPress={() => router.push(item.packetId ? `/packets/${item.packetId}` : `/deals/${item.dealId}`)}
      style={{
        borderLeftWidth: 4,
        borderLeftColor: colorOf(p, item, today),
        backgroundColor: p.paper,
        borderRadius: 4,
        paddingHorizontal: 8,
        paddingVertical: 4,
        minHeight: 44,
        justifyContent: 'center',
      }}
    >
      <Small numberOfLines={2} tone="ink" style={{ fontFamily: FONT.bold, fontSize: 14, lineHeight: 18 }}>
        {item.title}
      </Small>
      <Small numberOfLines={1} style={{ fontSize: 13.5, lineHeight: 18 }}>
        {late ? `${item.address}, ${shortDay(item.day, today).replace(/^\w+ /, '')}` : item.address}
      </Small>
    </Pressable>
  );
}
