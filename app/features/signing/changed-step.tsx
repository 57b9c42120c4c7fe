/** A change made after this person signed: shown before the first touch. */
import { Button, Card, Page } from '../../ui/pieces';
import { Small, Strong, Title } from '../../ui/text';
import type { StepProps } from './step';
import { Lead, WhoIs } from './parts';
import { useSay } from './say';

export function ChangedStep({ view, onSide, onGo }: StepProps & { onGo: () => void }) {
  const t = useSay();
  const open = view.changes.filter((c) => c.open);
  return (
    <Page max={560}>
      <WhoIs view={view} onNotMe={() => onSide('not_me')} />
      <Title testID="changed">{t('sign.changed.title')}</Title>
      <Lead>{t('sign.changed.body', { n: open.length })}</Lead>
      {open.map(({ redline: r }) => {
        const doc = view.documents.find((d) => d.id === r.documentId);
        return (
          <Card key={r.id}>
            <Small>
              {t('sign.page_of', { page: r.page, pages: doc?.pages.length ?? r.page, name: doc?.name ?? '' })}
            </Small>
            <Strong>{t(r.kind === 'strike' ? 'sign.changed.strike' : 'sign.changed.insert', { words: r.text })}</Strong>
          </Card>
        );
      })}
      <Button large kind="main" onPress={onGo} testID="look-at-change">
        {t('sign.changed.look')}
      </Button>
      <Button kind="quiet" onPress={() => onSide('more')} testID="more">
        {t('sign.more.title')}
      </Button>
    </Page>
  );
}
