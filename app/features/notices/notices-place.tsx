/** The notices of the firm, newest first, with their progress. */
import { router } from 'expo-router';
import { Pressable, View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import type { NoticeSummary } from '@gatepath/contract';
import { dayOf, shortDay } from '@gatepath/core/calendar';
import { count, upperFirst } from '@gatepath/core/text';
import { useNotices } from '../../api/notice-hooks';
import { useSession } from '../../api/hooks';
import { usePalette } from '../../ui/hooks';
import { ListPage } from '../../ui/list-page';
import { Button, Card } from '../../ui/pieces';
import { Body, Heading, Small, Strong } from '../../ui/text';
import { ShelfHead } from '../shelf/shelf-head';
import { TEXT } from './words';

export function NoticesPlace() {
  const list = useNotices();
  return (
    <ListPage
      header={
        <ShelfHead
          what="notice"
          acts={
            <Button kind="main" icon="plus" onPress={() => router.push('/notices/new')} testID="new-notice">
              {TEXT.newNotice}
            </Button>
          }
        />
      }
      what={TEXT.theNotices}
      more={TEXT.showOlderNotices}
      list={list}
      render={(n) => <NoticeCard notice={n} />}
      empty={
        <Card>
          <Heading>{TEXT.noNoticesYet}</Heading>
          <Body>{TEXT.aNoticeIsOneKit}</Body>
        </Card>
      }
    />
  );
}

const STATE_WORDS: Record<NoticeSummary['state'], string> = {
  preparing: TEXT.beingPrepared,
  going: TEXT.goingNow,
  stopped: 'stopped',
  gone: 'gone',
};

function NoticeCard({ notice }: { notice: NoticeSummary }) {
  const p = usePalette();
  const zone = useSession().data?.firm?.timeZone ?? 'UTC';
  const { counts } = notice;
  const all = counts.homes - counts.leftOut;
  const told = [
    notice.state === 'gone' ? '' : STATE_WORDS[notice.state],
    counts.wrong ? TEXT.toBeFixed(counts.wrong) : '',
    counts.cameBack ? TEXT.cameBack(counts.cameBack) : '',
    counts.letters ? TEXT.toBePosted(count(counts.letters, 'letter')) : '',
  ].filter(Boolean);
  return (
    <Pressable
      role="link"
      testID="notice-card"
      aria-label={TEXT.ofGoneOf(notice.name, counts.gone, all)}
      onPress={() => router.push(`/notices/${notice.id}`)}
    >
      <Card>
        <Strong style={{ fontSize: 18 }}>{notice.name}</Strong>
        <View>
          <ProgressBar
            progress={all ? counts.gone / all : 0}
            color={p.moss}
            style={{ height: 6, borderRadius: 3 }}
            aria-hidden
          />
        </View>
        <Small>{TEXT.ofGoneOpened(counts.gone, count(all, 'home'), counts.opened)}</Small>
        <Small>{`${told.length ? `${upperFirst(told.join(', '))}. ` : ''}${notice.by}, ${shortDay(dayOf(notice.createdAt, zone))}`}</Small>
      </Card>
    </Pressable>
  );
}
