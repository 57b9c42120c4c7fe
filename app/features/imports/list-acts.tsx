/** Acts on a whole list: importing and exporting. */
import { router } from 'expo-router';
import { Linking } from 'react-native';
import { urlOf } from '@gatepath/contract/paths';
import { CsvLink } from '../../ui/csv-link';
import { Button } from '../../ui/pieces';
import { TEXT } from './words';
import { Row } from '../../ui/layout';

export function ListActs({ list }: { list: 'people' | 'deals' }) {
  return (
    <Row align="stretch" wrap>
      <Button kind="quiet" icon="file-plus" onPress={() => router.push(`/import?what=${list}`)} testID="bring-in">
        {TEXT.importATable}
      </Button>
      <CsvLink list={list} />
      {list === 'deals' ? (
        <Button kind="quiet" onPress={() => router.push('/insight')} testID="to-insight">
          {TEXT.reports}
        </Button>
      ) : null}
      {list === 'people' ? (
        <Button kind="quiet" icon="download" onPress={() => void Linking.openURL(urlOf('cards'))}>
          {TEXT.asContactCards}
        </Button>
      ) : null}
    </Row>
  );
}
