/** Approving: the client reads and confirms; nothing is written on the pages. */
import { Button, Note, Page } from '../../ui/pieces';
import { Body, Title } from '../../ui/text';
import type { StepProps } from './step';
import { WhoIs } from './parts';
import { useSay } from './say';

export function ApproveStep({ signing, view, onSide }: StepProps) {
  const t = useSay();
  return (
    <Page max={560}>
      <WhoIs view={view} />
      <Title>{view.packetName}</Title>
      {view.again ? <Note tone="warn" title={t('sign.changed.approve')} /> : null}
      <Body>{t('sign.approve.body')}</Body>
      <Button large onPress={() => onSide('read')} testID="read-first">
        {t('sign.read')}
      </Button>
      <Button large kind="main" onPress={signing.finish} testID="approve">
        {t('sign.approve')}
      </Button>
      <Button kind="quiet" onPress={() => onSide('more')} testID="more">
        {t('sign.more.title')}
      </Button>
    </Page>
  );
}
