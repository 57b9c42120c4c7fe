/** A person signed an earlier version of a paper: what is different now, before the first touch. */
import { useQueries, type UseQueryResult } from '@tanstack/react-query';
import { useState } from 'react';
import type { ChangesOfPaper, SigningView } from '@gatepath/contract';
import { calendarDay, type WordKey } from '@gatepath/core/words';
import { keys } from '../../api/keys';
import { call } from '../../api/client';
import { Button, Card, Note, Page } from '../../ui/pieces';
import { Body, Heading, Small, Title } from '../../ui/text';
import { ChangedText } from '../pages/changed-text';
import { Lead, WhoIs } from './parts';
import { useSay, useWords } from './say';
import type { StepProps } from './step';
import { Stack } from '../../ui/layout';

type Change = ChangesOfPaper['changes'][number];

export function RevisedStep({ view, token, onSide, onGo }: StepProps & { onGo: () => void }) {
  const t = useSay();
  const asked = useQueries({
    queries: view.revised.map(({ documentId }) => ({
      // Not a part of the view's key: its answers cancel earlier requests.
      queryKey: keys.signingChanges(token, documentId),
      queryFn: () => call('signingChanges', { params: { token, documentId } }),
      staleTime: Infinity,
      retry: 1,
    })),
  });
  return (
    <Page max={560}>
      <WhoIs view={view} onNotMe={() => onSide('not_me')} />
      <Title testID="revised">{t('sign.revised.title')}</Title>
      {asked.map((changes, i) => (
        <Revised key={view.revised[i]?.documentId ?? i} view={view} n={i} changes={changes} />
      ))}
      <Button large kind="main" onPress={onGo} disabled={asked.some((x) => x.isPending)} testID="seen-changes">
        {t('sign.revised.go')}
      </Button>
      <Button kind="quiet" onPress={() => onSide('read')} testID="read-all">
        {t('sign.read')}
      </Button>
      <Button kind="quiet" onPress={() => onSide('more')} testID="more">
        {t('sign.more.title')}
      </Button>
    </Page>
  );
}

function Revised(o: { view: SigningView; n: number; changes: UseQueryResult<ChangesOfPaper> }) {
  const t = useSay();
  const words = useWords();
  const { changes } = o;
  const revised = o.view.revised[o.n];
  if (!revised) return null;
  const name = o.view.documents.find((d) => d.id === revised.documentId)?.name ?? '';
  return (
    <Card>
      <Heading>{name}</Heading>
      <Lead>{t('sign.revised.body', { day: calendarDay(words, revised.on) })}</Lead>
      {changes.isPending ? <Body>{t('sign.loading')}</Body> : null}
      {changes.isError ? <Note tone="warn" title={t('sign.revised.unknown')} /> : null}
      {changes.data ? <List found={changes.data} /> : null}
    </Card>
  );
}

/** Returns whether a change is shown. Headers are included: a number in them may be the paper's name. */
const isTold = (c: Change) => !c.aside || c.aside === 'header';

function List({ found }: { found: ChangesOfPaper }) {
  const t = useSay();
  const [all, setAll] = useState(false);
  const told = found.changes.filter(isTold);
  const small = found.changes.filter((c) => !isTold(c));
  return (
    <Stack gap={12}>
      {told.length ? null : <Body>{t(small.length ? 'sign.revised.nearly_same' : 'sign.revised.same')}</Body>}
      {found.wordsOnly.length ? (
        <Note tone="warn" title={t('sign.revised.words_only', { pages: found.wordsOnly.join(', ') })} />
      ) : null}
      {(all ? found.changes : told).map((c, i) => (
        <Stack key={i} testID="revised-change" gap={4}>
          <Small>{`${t('sign.revised.page', { page: pageOf(c) })}. ${t(kindOf(c))}`}</Small>
          {c.drawn ? null : <ChangedText change={c} />}
          {c.scan && !c.drawn ? <Small>{t('sign.revised.scan')}</Small> : null}
        </Stack>
      ))}
      {small.length && !all ? (
        <Button kind="quiet" onPress={() => setAll(true)} testID="small-changes">
          {t('sign.revised.small', { n: small.length })}
        </Button>
      ) : null}
      {found.more ? <Body>{t('sign.revised.more', { n: found.more })}</Body> : null}
    </Stack>
  );
}

const pageOf = (c: Change) => c.after?.boxes[0]?.page ?? c.before?.boxes[0]?.page ?? 1;

const KINDS: Record<Change['kind'], WordKey> = {
  put_in: 'sign.revised.put_in',
  struck: 'sign.revised.struck',
  replaced: 'sign.revised.replaced',
  moved: 'sign.revised.moved',
};

function kindOf(c: Change): WordKey {
  if (c.drawn) return c.kind === 'struck' ? 'sign.revised.drawn_struck' : 'sign.revised.drawn_put_in';
  return KINDS[c.kind];
}
