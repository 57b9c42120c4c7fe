/** Everything else a client may want: asking, downloading, handing over, declining. */
import { puts } from '@gatepath/core/filling';
import { Button, Page } from '../../ui/pieces';
import { Title } from '../../ui/text';
import type { StepProps } from './step';
import { AskForPage } from './ask-for-page';
import { Downloads, Languages, WhoIs } from './parts';
import { useSay } from './say';

export function MoreStep({ token, signing, view, onBack, onSide }: StepProps) {
  const t = useSay();
  const signs = view.agreed && view.hand && puts(view.me);
  return (
    <Page max={560}>
      <WhoIs view={view} onNotMe={() => onSide('not_me')} />
      <Title>{t('sign.more.title')}</Title>
      <Button large kind="main" onPress={onBack} testID="back">
        {t('sign.go_back')}
      </Button>
      <Button large onPress={() => onSide('read')}>
        {t('sign.read')}
      </Button>
      <Button large icon="email" onPress={() => onSide('ask')} testID="ask">
        {t('sign.ask')}
      </Button>
      {signs ? (
        <Button large onPress={() => onSide('hand')}>
          {t('sign.hand.title')}
        </Button>
      ) : null}
      <Downloads token={token} view={view} />
      <Languages signing={signing} view={view} />
      {view.hostName ? null : <AskForPage token={token} />}
      {view.mayHandOver ? (
        <Button large onPress={() => onSide('hand_over')} testID="hand-over">
          {t('sign.hand_over')}
        </Button>
      ) : null}
      <Button kind="quiet" onPress={() => onSide('decline')} testID="decline">
        {t('sign.decline')}
      </Button>
    </Page>
  );
}
