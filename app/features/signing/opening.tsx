/** What a client sees while something is loading, and when it cannot be opened. */
import { View } from 'react-native';
import type { WordKey } from '@gatepath/core/words';
import { itemAt } from '@gatepath/core/sure';
import { Button, Note, Page } from '../../ui/pieces';
import { Body, Title } from '../../ui/text';
import { useSay } from './say';
import { wordsOfError } from './wrong';

/** Returns the browser's language, used before it is known who comes. */
export function browserLanguage(): string {
  return typeof navigator === 'undefined' ? 'en' : itemAt(navigator.language.split('-'), 0);
}

export function Waiting() {
  const t = useSay();
  return (
    <View role="main" style={{ padding: 32 }}>
      <View role="status">
        <Body level={1}>{t('sign.loading')}</Body>
      </View>
    </View>
  );
}

interface Props {
  error: Error | null;
  retry: () => void;
  title?: WordKey;
}

export function Unopened({ error, retry, title = 'sign.cannot_open' }: Props) {
  const t = useSay();
  return (
    <Page max={560}>
      <Title>{t(title)}</Title>
      <Note
        tone="warn"
        title={wordsOfError(t, error)}
        testID="trouble"
        action={
          <Button kind="quiet" onPress={retry} fit>
            {t('sign.try_again')}
          </Button>
        }
      />
    </Page>
  );
}
