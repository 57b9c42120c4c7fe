/** A person's own page: what waits for them first, then what is done, by year. */
import { useInfiniteQuery, type InfiniteData } from '@tanstack/react-query';
import { router } from 'expo-router';
import { useState } from 'react';
import { Linking } from 'react-native';
import type { OwnPage as Own } from '@gatepath/contract';
import { CODE_MINUTES } from '@gatepath/contract/limits';
import { urlOf } from '@gatepath/contract/paths';
import { calendarDay } from '@gatepath/core/words';
import { useAct } from '../../api/act';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { usePalette } from '../../ui/hooks';
import { Input } from '../../ui/input';
import { Button, Card, Choice, Page } from '../../ui/pieces';
import { Body, Heading, Small, Strong, Title } from '../../ui/text';
import { browserLanguage, Unopened, Waiting } from '../signing/opening';
import { Lead } from '../signing/parts';
import { InLanguage, useLanguage, useSay, useWords } from '../signing/say';
import { Wrong } from '../signing/wrong';
import { Row, Ruled, Stack } from '../../ui/layout';

type OwnPacket = Own['packets'][number];

function useOwn(token: string) {
  return useInfiniteQuery({
    queryKey: keys.ownPage(token),
    initialPageParam: '',
    queryFn: ({ pageParam }) => call('ownPage', { params: { token }, query: pageParam ? { after: pageParam } : {} }),
    getNextPageParam: (last) => last.next,
    staleTime: 15_000,
    retry: false,
  });
}

type Asked = ReturnType<typeof useOwn>;

export function OwnPage({ token }: { token: string }) {
  const own = useOwn(token);
  const head = own.data?.pages[0];
  const words = useLanguage(head?.language ?? browserLanguage());
  if (own.isPending || !words) return <Waiting />;
  return (
    <InLanguage words={words}>
      {head ? (
        head.proved ? (
          <Papers token={token} own={own} head={head} />
        ) : (
          <Door token={token} head={head} />
        )
      ) : (
        <Unopened error={own.error} retry={() => void own.refetch()} />
      )}
    </InLanguage>
  );
}

/** Returns the options of an act that answers with the page. */
const shows = (token: string) => (view: Own) => {
  const page: InfiniteData<Own, string> = { pages: [view], pageParams: [''] };
  return [[keys.ownPage(token), page]] as const;
};

function Languages({ token, head }: { token: string; head: Own }) {
  const t = useSay();
  const set = useAct((language: string) => call('setOwnLanguage', { params: { token }, body: { language } }), {
    shows: shows(token),
  });
  if (head.languages.length < 2) return null;
  return (
    <>
      <Choice
        wrap
        label={t('sign.language')}
        value={head.language}
        options={head.languages.map((l) => ({ value: l.tag, label: l.name }))}
        onChange={(language) => set.mutate(language)}
      />
      {set.isError ? <Wrong error={set.error} /> : null}
    </>
  );
}

/** Asks for the code that opens the page. */
function Door({ token, head }: { token: string; head: Own }) {
  const t = useSay();
  const [code, setCode] = useState('');
  const params = { token };
  const send = useAct(() => call('sendOwnCode', { params }), { shows: shows(token) });
  const give = useAct(() => call('giveOwnCode', { params, body: { code } }), {
    shows: shows(token),
    onError: () => setCode(''),
  });
  const { to, sent } = head.code;
  return (
    <Page max={560}>
      <Small>{head.firmName}</Small>
      <Title>{t('own.is_it_you', { first: head.firstName })}</Title>
      <Languages token={token} head={head} />
      <Lead>{sent ? t('own.code_sent', { to, minutes: CODE_MINUTES }) : t('own.code_to', { to })}</Lead>
      {sent ? (
        <>
          <Input
            label={t('sign.step.label')}
            value={code}
            onChangeText={setCode}
            inputMode="numeric"
            autoComplete="one-time-code"
            maxLength={40}
            onSubmitEditing={() => give.mutate()}
            testID="code"
          />
          {give.isError ? <Wrong error={give.error} /> : null}
          <Button
            large
            kind="main"
            busy={give.isPending}
            disabled={!code.trim()}
            onPress={() => give.mutate()}
            testID="give-code"
          >
            {t('sign.go_on')}
          </Button>
        </>
      ) : null}
      {send.isError ? <Wrong error={send.error} /> : null}
      <Button
        large
        kind={sent ? 'quiet' : 'main'}
        busy={send.isPending}
        onPress={() => send.mutate()}
        testID="send-code"
      >
        {t(sent ? 'sign.step.again' : 'sign.step.send')}
      </Button>
    </Page>
  );
}

function Papers({ token, own, head }: { token: string; own: Asked; head: Own }) {
  const t = useSay();
  const all = own.data?.pages.flatMap((x) => x.packets) ?? [];
  const waiting = all.filter((x) => x.status === 'to_do');
  const unread = all.filter((x) => x.status === 'delivered' && !x.opened);
  const first = [...waiting, ...unread];
  const rest = all.filter((x) => !first.includes(x));
  const years = [...new Set(rest.map((x) => x.on.slice(0, 4)))];
  return (
    <Page max={620}>
      <Small>{t('own.with', { firmName: head.firmName })}</Small>
      <Title testID="own-title">{t('own.title')}</Title>
      <Small>{t('own.apart', { name: head.name })}</Small>
      <Languages token={token} head={head} />
      <Heading>{first.length ? t('own.first') : all.length ? t('own.none_waiting') : t('own.none')}</Heading>
      {first.map((x) => (
        <Packet key={`${x.id} ${x.partyId}`} token={token} packet={x} waits />
      ))}
      {years.map((year) => (
        <Stack key={year} gap={12}>
          <Heading>{year}</Heading>
          {rest
            .filter((x) => x.on.startsWith(year))
            .map((x) => (
              <Packet key={`${x.id} ${x.partyId}`} token={token} packet={x} />
            ))}
        </Stack>
      ))}
      {own.hasNextPage ? (
        <Button large busy={own.isFetchingNextPage} onPress={() => void own.fetchNextPage()}>
          {t('own.more')}
        </Button>
      ) : null}
    </Page>
  );
}

function Packet({ token, packet, waits }: { token: string; packet: OwnPacket; waits?: boolean }) {
  const p = usePalette();
  const t = useSay();
  const words = useWords();
  const open = useAct(() => call('openOwn', { params: { token, packetId: packet.id } }), {
    onDone: (link) => router.push(`/sign/${link.token}`),
  });
  const does = packet.status !== 'to_do' ? 'own.read' : packet.act === 'approve' ? 'own.approve' : 'own.sign';
  const told = [
    t(`own.s.${packet.status}`),
    packet.status === 'to_do' && packet.act !== 'approve' ? t('own.left', { n: packet.left }) : '',
    packet.lastDay ? t('own.last_day', { day: calendarDay(words, packet.lastDay) }) : calendarDay(words, packet.on),
  ].filter(Boolean);
  return (
    <Card style={waits ? { borderColor: p.brick, borderWidth: 2 } : null} testID="own-packet">
      <Strong style={{ fontSize: 19, lineHeight: 25 }}>{packet.name || t('own.behind_code')}</Strong>
      <Body>{packet.dealName}</Body>
      <Small>{told.join(', ')}</Small>
      {open.isError ? <Wrong error={open.error} /> : null}
      <Button
        large
        kind={waits ? 'main' : 'plain'}
        busy={open.isPending}
        onPress={() => open.mutate()}
        testID="own-open"
      >
        {t(does)}
      </Button>
      {packet.documents.map((d) => (
        <Ruled key={d.id} gap={4}>
          <Body>{`${d.name}, ${t('own.pages', { n: d.pages })}`}</Body>
          <Row gap={8} align="stretch" wrap>
            {d.sealed ? <FileLink token={token} packet={packet} documentId={d.id} name={d.name} as="sealed" /> : null}
            <FileLink token={token} packet={packet} documentId={d.id} name={d.name} as="original" />
          </Row>
        </Ruled>
      ))}
    </Card>
  );
}

function FileLink({
  token,
  packet,
  documentId,
  name,
  as,
}: {
  token: string;
  packet: OwnPacket;
  documentId: string;
  name: string;
  as: 'original' | 'sealed';
}) {
  const t = useSay();
  const what = t(as === 'sealed' ? 'own.sealed' : 'own.original');
  return (
    <Button
      kind="quiet"
      icon="download"
      label={`${what}: ${name}`}
      onPress={() => void Linking.openURL(`${urlOf('ownFile', { token, packetId: packet.id, documentId })}?as=${as}`)}
      testID={`own-${as}`}
    >
      {what}
    </Button>
  );
}
