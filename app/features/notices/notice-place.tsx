/** A notice to many households as a ledger: a row per household, a column per step, so that gaps are visible. */
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { FlatList, View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import type { NoticeView } from '@gatepath/contract';
import { count, listWords } from '@gatepath/core/text';
import { useNotice, useNoticeActs, useNoticeRows, type RowShow } from '../../api/notice-hooks';
import { usePalette, useWide } from '../../ui/hooks';
import { itemsOf } from '../../ui/list-page';
import { useOlder } from '../../ui/older';
import { NotReady, isReady } from '../../ui/not-ready';
import { Button, Card, Choice, IconButton, Loading, Trouble } from '../../ui/pieces';
import { Body, Small, Strong, Title } from '../../ui/text';
import { columnsOf, HomeRow, stepsOf, WIDTH, type Acts } from './home-row';
import { Homes } from './homes';
import { Letters } from './letters';
import { SaidToAll } from './said-to-all';
import { TEXT } from './words';
import { Actions, Columns, Row, Stack } from '../../ui/layout';

export function NoticePlace() {
  const { noticeId } = useLocalSearchParams<{ noticeId: string }>();
  const notice = useNotice(noticeId);
  if (!isReady(notice)) return <NotReady query={notice} what={TEXT.theNotice} />;
  return <Notice key={notice.data.id} notice={notice.data} />;
}

const SHOWS: { value: RowShow; label: string }[] = [
  { value: 'all', label: TEXT.all },
  { value: 'wrong', label: TEXT.toFix },
  { value: 'ready', label: TEXT.toSend },
  { value: 'gone', label: TEXT.gone },
  { value: 'letters', label: TEXT.letters },
];

// eslint-disable-next-line max-lines-per-function -- one view from top to bottom, with nothing to decide in it that is not shown
function Notice({ notice }: { notice: NoticeView }) {
  const p = usePalette();
  const wide = useWide();
  const [show, setShow] = useState<RowShow>('all');
  const rows = useNoticeRows(notice.id, show);
  const acts = useNoticeActs(notice.id);
  const items = itemsOf(rows);
  const columns = columnsOf(notice, items);
  const next = useOlder(rows);
  const header = (
    <Stack gap={12} style={{ paddingBottom: 14 }}>
      <Head notice={notice} acts={acts} />
      <Progress notice={notice} />
      {notice.counts.letters ? <Letters notice={notice} acts={acts} /> : null}
      {notice.state === 'preparing' ? (
        <Columns wide={wide}>
          <SaidToAll notice={notice} acts={acts} />
          <Homes notice={notice} acts={acts} />
        </Columns>
      ) : null}
      {notice.counts.homes ? (
        <Choice wrap label={TEXT.whichHomesAreShown} value={show} options={SHOWS} onChange={setShow} />
      ) : null}
      {!wide && items.length ? (
        <Small>{TEXT.theIconsOfAHome(listWords(stepsOf(notice).map((x) => x.label)))}</Small>
      ) : null}
      {rows.isPending ? <Loading what={TEXT.theHomes} /> : null}
      {rows.isError ? <Trouble error={rows.error} retry={() => void rows.refetch()} /> : null}
      {wide && items.length ? <Heads notice={notice} labels={columns.map((c) => c.label)} /> : null}
    </Stack>
  );
  return (
    <View role="main" style={{ flex: 1, backgroundColor: p.paper }}>
      <FlatList
        data={items}
        keyExtractor={(r) => r.id}
        renderItem={({ item }) => (
          <View style={{ backgroundColor: p.sheet, borderColor: p.rule, borderLeftWidth: 1, borderRightWidth: 1 }}>
            <HomeRow row={item} notice={notice} columns={columns} acts={acts} wide={wide} />
          </View>
        )}
        extraData={[notice, columns.length]}
        initialNumToRender={20}
        windowSize={7}
        maxToRenderPerBatch={30}
        onEndReached={next}
        onEndReachedThreshold={1}
        contentContainerStyle={{ padding: 16, paddingBottom: 60, width: '100%', maxWidth: 1260, alignSelf: 'center' }}
        ListHeaderComponent={header}
        ListEmptyComponent={rows.isSuccess && notice.counts.homes ? <Body>{TEXT.noHomeHere}</Body> : null}
        ListFooterComponent={
          <View style={{ borderTopWidth: items.length ? 1 : 0, borderColor: p.rule, paddingTop: 12 }}>
            {rows.hasNextPage ? (
              <Button onPress={next} busy={rows.isFetchingNextPage}>
                {TEXT.showMoreHomes}
              </Button>
            ) : null}
          </View>
        }
      />
    </View>
  );
}

function Head({ notice, acts }: { notice: NoticeView; acts: Acts }) {
  const wide = useWide();
  const { counts } = notice;
  const { go, stop, drop } = acts;
  const someGone = counts.gone > 0 && counts.ready > 0;
  const error = go.error ?? stop.error ?? drop.error;
  return (
    <Stack gap={8}>
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: 10, alignItems: wide ? 'center' : 'stretch' }}>
        <Row gap={4} style={{ flex: wide ? 1 : undefined }}>
          <IconButton name="arrow-left" label={TEXT.backToTheNotices} onPress={() => router.navigate('/notices')} />
          <Stack grow>
            <Small>{notice.signed ? TEXT.noticeToBeSigned : TEXT.noticeOnlyDelivered}</Small>
            <Title numberOfLines={2}>{notice.name}</Title>
          </Stack>
        </Row>
        <Actions>
          {notice.state === 'going' ? (
            <Button busy={stop.isPending} onPress={() => stop.mutate()} testID="stop-notice">
              {TEXT.stopTheRun}
            </Button>
          ) : null}
          {counts.gone === 0 && notice.state !== 'going' ? (
            <Button
              kind="quiet"
              busy={drop.isPending}
              onPress={() => drop.mutate(undefined, { onSuccess: () => router.navigate('/notices') })}
            >
              {TEXT.deleteWord}
            </Button>
          ) : null}
          {notice.state === 'going' || (!counts.ready && counts.gone) ? null : (
            <Button
              kind="main"
              disabled={!counts.ready || counts.fresh > 0}
              busy={go.isPending}
              onPress={() => go.mutate()}
              testID="go-notice"
              style={{ flexGrow: 1 }}
            >
              {counts.ready
                ? someGone
                  ? TEXT.sendTheRest(counts.ready)
                  : TEXT.sendTo(count(counts.ready, 'home'))
                : TEXT.nothingToSendYet}
            </Button>
          )}
        </Actions>
      </View>
      {error ? <Trouble error={error} /> : null}
    </Stack>
  );
}

/** The progress of the run, as a bar and a sentence. */
function Progress({ notice }: { notice: NoticeView }) {
  const p = usePalette();
  const { counts } = notice;
  const all = counts.homes - counts.leftOut;
  if (!all) return null;
  const told = [
    counts.wrong ? TEXT.toBeFixed(counts.wrong) : '',
    counts.fresh ? TEXT.beingWorkedOut(counts.fresh) : '',
    counts.ready ? TEXT.countToSend(counts.ready) : '',
    counts.cameBack ? TEXT.cameBack(counts.cameBack) : '',
    counts.gone ? TEXT.opened(counts.opened) : '',
    notice.signed && counts.gone ? TEXT.signed(counts.done) : '',
    counts.leftOut ? TEXT.leftOut(counts.leftOut) : '',
  ].filter(Boolean);
  return (
    <Stack role="status" gap={8} testID="notice-progress">
      <View style={{ height: 8 }}>
        <ProgressBar
          progress={counts.gone / all}
          color={p.moss}
          style={{ height: 8, borderRadius: 4 }}
          aria-label={TEXT.gone}
        />
      </View>
      <Body>
        <Strong>{TEXT.ofGone(counts.gone, all)}</Strong>
        {told.length ? `, ${listWords(told)}` : ''}
        {notice.state === 'stopped' ? TEXT.stoppedTheRestNotSent : ''}
      </Body>
    </Stack>
  );
}

function Heads({ notice, labels }: { notice: NoticeView; labels: string[] }) {
  const p = usePalette();
  const cell = (words: string, style: object) => (
    <View key={words} style={style}>
      <Small>{words}</Small>
    </View>
  );
  return (
    // Each row says its own steps to a screen reader: the headings above columns are for the eye.
    <Card style={{ padding: 0, marginBottom: -15, borderBottomLeftRadius: 0, borderBottomRightRadius: 0 }}>
      <Row
        gap={8}
        align="end"
        style={{ paddingHorizontal: 14, paddingVertical: 10, borderBottomWidth: 1.5, borderColor: p.ink }}
      >
        {cell('home', { flex: WIDTH.home })}
        {cell('tenants', { flex: WIDTH.tenants })}
        {labels.map((l) => cell(l.toLowerCase(), { width: WIDTH.value }))}
        {cell(TEXT.countsFromHeading, { width: WIDTH.from })}
        {stepsOf(notice).map((s) => cell(s.label, { width: WIDTH.step, alignItems: 'center' }))}
        {cell(TEXT.howItStands, { flex: WIDTH.says })}
      </Row>
    </Card>
  );
}
