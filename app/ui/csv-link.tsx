/** Downloading a whole list as CSV. */
import { Linking } from 'react-native';
import type { ListName } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { Button } from './pieces';

export function CsvLink({ list, children = 'As CSV' }: { list: ListName; children?: string }) {
  return (
    <Button
      kind="quiet"
      icon="download"
      label={`${children}: ${list}`}
      onPress={() => void Linking.openURL(urlOf('csv', { list }))}
      fit
      testID={`csv-${list}`}
    >
      {children}
    </Button>
  );
}
