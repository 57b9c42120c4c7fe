/** A field to search a list. */
import type { StyleProp, ViewStyle } from 'react-native';
import { Searchbar } from 'react-native-paper';

interface Props {
  placeholder: string;
  value: string;
  onChangeText: (text: string) => void;
  style?: StyleProp<ViewStyle>;
  testID?: string;
}

export function SearchBar(props: Props) {
  return (
    <Searchbar
      {...props}
      icon="magnify"
      clearIcon="close"
      inputStyle={{ fontSize: 16 }}
      // The library says "search", which is a part of a page and no field.
      role="searchbox"
    />
  );
}
