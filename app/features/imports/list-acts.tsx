/** What goes with a whole list: bringing one in, and writing it out. */
import { router } from 'expo-router';
import { Linking, View } from 'react-native';
import { urlOf } from '@gatepath/contract/paths';
import { CsvLink } from '../../ui/csv-link';
import { Button } from '../../ui/pieces';
import { TEXT } from './words';

export function ListActs({ list }: { list: 'people' | 'deals' }) {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
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
    </View>
  );
}
