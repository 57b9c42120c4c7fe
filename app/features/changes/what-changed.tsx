/** Two versions of a paper side by side: the list of changes, and both pages with the changes marked. */
import { router, useLocalSearchParams } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Linking, Pressable, View } from 'react-native';
import { urlOf, type ComparisonView } from '@gatepath/contract';
import { shortDay } from '@gatepath/core/calendar';
import { ASIDE_WORDS, kindInWords, pageOf, type Change } from '@gatepath/core/changed';
import { count, listWords } from '@gatepath/core/text';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { usePalette, useWide } from '../../ui/hooks';
import { NotReady, isReady } from '../../ui/not-ready';
import { Button, Card, Note, Page } from '../../ui/pieces';
import { Switch } from '../../ui/switch';
import { Body, Small, Strong, Title } from '../../ui/text';
import { ChangedText } from '../pages/changed-text';
import { Crop } from '../pages/crop';
import { ChangeBoxes, PagePair } from './page-pair';
import { TEXT } from './words';
import { Actions, Stack } from '../../ui/layout';

/** Queries the changes from an earlier version; both are in one deal, or one is a form of the shelf. */
function useChanges(documentId: string, beforeId: string) {
  return useQuery({
    queryKey: keys.changes(documentId, beforeId),
    queryFn: () => call('changes', { params: { documentId, beforeId } }),
    // Papers do not change.
    staleTime: Infinity,
  });
}

/** The screen. */
export function WhatChanged() {
  const { documentId, beforeId } = useLocalSearchParams<{ documentId: string; beforeId: string }>();
  const changes = useChanges(documentId, beforeId);
  if (!isReady(changes)) return <NotReady query={changes} what={TEXT.theComparison} />;
  return <Compared view={changes.data} />;
}

function Compared({ view }: { view: ComparisonView }) {
  const wide = useWide();
  const [aside, setAside] = useState(true);
  const [review, setReview] = useState(false);
  const shown = view.changes.filter((c) => (c.aside === 'reading' ? review : !aside || !c.aside));
  const [chosen, setChosen] = useState<Change | null>(null);
  const at = chosen && shown.includes(chosen) ? chosen : (shown[0] ?? null);
  const [row, setRow] = useState<number | null>(null);
  const choose = (c: Change) => {
    setChosen(c);
    setRow(null);
  };
  return (
    <Page max={wide ? 1240 : 760}>
      <Head view={view} shown={shown} />
      <LeftAside view={view} aside={aside} onAside={setAside} review={review} onReview={setReview} />
      <View style={wide ? { flexDirection: 'row', gap: 20, alignItems: 'flex-start' } : { gap: 12 }}>
        <View style={wide ? { width: 330, gap: 10 } : { gap: 10 }}>
          {shown.map((c, i) => (
            <ChangeRow
              key={i}
              view={view}
              change={c}
              n={i + 1}
              chosen={c === at}
              onChoose={() => choose(c)}
              wide={wide}
            />
          ))}
        </View>
        {wide ? (
          <Stack grow>
            <PagePair view={view} shown={shown} chosen={at} row={row ?? rowOf(view, at)} onRow={setRow} />
          </Stack>
        ) : null}
      </View>
    </Page>
  );
}

/** Returns the row of pages on which a change is. */
function rowOf(view: ComparisonView, change: Change | null): number {
  if (!change) return 0;
  const [now, old] = [change.after?.boxes[0]?.page, change.before?.boxes[0]?.page];
  const found = view.pages.findIndex((p) => (now ? p.after === now : p.before === old));
  return Math.max(0, found);
}

/** Returns how many changes there are. Words that were read slightly differently are never counted as no change. */
function sumOf(view: ComparisonView, shown: Change[]): string {
  const own = shown.filter((c) => c.aside !== 'reading').length + view.more;
  if (own) return count(own, 'change');
  return view.slight ? TEXT.noChangesExceptWordsThat : TEXT.noVisibleChanges;
}

function Head({ view, shown }: { view: ComparisonView; shown: Change[] }) {
  const { before, after } = view;
  const { dealId } = after;
  const day = (version: ComparisonView['after']) => shortDay(version.createdAt.slice(0, 10));
  const back = dealId ? `/deals/${dealId}` : after.shelfId ? `/forms/${after.shelfId}` : null;
  return (
    <Stack gap={8}>
      <Title>{TEXT.whatChanged(after.name)}</Title>
      <Small>
        {TEXT.beforeNow(
          before.name,
          day(before),
          count(before.pages.length, 'page'),
          after.name,
          day(after),
          count(after.pages.length, 'page'),
        )}
      </Small>
      <View role="status">
        <Strong testID="changes-sum">{sumOf(view, shown)}</Strong>
      </View>
      <Actions>
        <Button
          icon="download"
          onPress={() => void Linking.openURL(urlOf('changesFile', { documentId: after.id, beforeId: before.id }))}
          testID="changes-file"
        >
          {TEXT.bothAsAPdf}
        </Button>
        {back ? (
          <Button kind="quiet" onPress={() => router.push(back)}>
            {dealId ? TEXT.toTheDeal : TEXT.toTheForm}
          </Button>
        ) : null}
      </Actions>
    </Stack>
  );
}

/** Shows what was read differently, and what could not be compared. */
function LeftAside(o: {
  view: ComparisonView;
  aside: boolean;
  onAside: (on: boolean) => void;
  review: boolean;
  onReview: (on: boolean) => void;
}) {
  const { view } = o;
  const n = view.changes.filter((c) => c.aside && c.aside !== 'reading').length;
  const pages = view.wordsOnly;
  return (
    <>
      {n ? (
        <Switch label={TEXT.hideChangesInHeadersPage(n)} on={o.aside} onChange={o.onAside} testID="leave-aside" />
      ) : null}
      {view.slight ? (
        <Switch
          label={TEXT.readSlightlyDifferently(count(view.slight, TEXT.wordWas, TEXT.wordsWere), view.slight)}
          on={o.review}
          onChange={o.onReview}
          testID="review-slight"
        />
      ) : null}
      {pages.length ? (
        <Note
          tone="warn"
          title={TEXT.onlyWordsCompared(
            pages.length,
            listWords(pages.slice(0, 12).map(String)),
            pages.length > 12 ? TEXT.andMore : '',
          )}
        />
      ) : null}
      {view.more ? <Note tone="warn" title={TEXT.areNotListedBecause(count(view.more, TEXT.furtherChange))} /> : null}
    </>
  );
}

function ChangeRow(o: {
  view: ComparisonView;
  change: Change;
  n: number;
  chosen: boolean;
  onChoose: () => void;
  wide: boolean;
}) {
  const p = usePalette();
  const { change: c, n } = o;
  const what = `${c.aside ? `${ASIDE_WORDS[c.aside]}, ` : ''}${kindInWords(c)}`;
  const words = [c.before?.text, c.after?.text].filter(Boolean).join(c.kind === 'moved' ? '' : ' became ');
  return (
    <Card
      gap={4}
      style={{ padding: 0, borderColor: o.chosen ? p.brick : p.rule, borderWidth: o.chosen ? 2 : 1 }}
      testID="change"
    >
      <Pressable
        role="button"
        aria-pressed={o.chosen}
        aria-label={TEXT.change(n, what, pageOf(c), c.kind === 'moved' ? (c.after?.text ?? '') : words)}
        onPress={o.onChoose}
        style={{ gap: 4, padding: 12, minHeight: 44 }}
      >
        <Small>{`${n}. ${what[0]!.toUpperCase()}${what.slice(1)}, ${pageOf(c)}`}</Small>
        {c.drawn ? <Body>{TEXT.aDrawingOrHandwritingCheck}</Body> : <ChangedText change={c} short />}
        {c.scan && !c.drawn ? <Small>{TEXT.readFromAScanCompare}</Small> : null}
      </Pressable>
      {!o.wide && o.chosen ? <OnPages view={o.view} change={c} /> : null}
    </Card>
  );
}

/** On a phone: the change on both pages, below its words. */
function OnPages({ view, change }: { view: ComparisonView; change: Change }) {
  return (
    <Stack gap={8} style={{ padding: 12, paddingTop: 0 }}>
      {(['before', 'after'] as const).map((side) => {
        const box = change[side]?.boxes[0];
        const size = box && view[side].pages[box.page - 1];
        if (!box || !size) return null;
        return (
          <Stack key={side} gap={4}>
            <Small>{side === 'before' ? TEXT.before : TEXT.now}</Small>
            <Crop
              page={size}
              url={urlOf('documentPage', { documentId: view[side].id, page: box.page })}
              rect={box.rect}
              label={TEXT.pageShown(side === 'before' ? TEXT.before : TEXT.now, box.page)}
            >
              {(scale) => <ChangeBoxes changes={[change]} chosen={change} side={side} page={box.page} scale={scale} />}
            </Crop>
          </Stack>
        );
      })}
    </Stack>
  );
}
