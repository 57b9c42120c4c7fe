/** Downloading a whole list as CSV. */
import { Linking } from 'react-native';
import type { ListName } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import { Button } from './pieces';
import { TEXT } from './words';

export function CsvLink({ list, children = TEXT.asCsv }: { list: ListName; children?: string }) {
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
