import { useLocalSearchParams } from 'expo-router';
import { OwnPage } from '../../ceremony-place';

export default function Mine() {
  const { token } = useLocalSearchParams<{ token: string }>();
  return <OwnPage key={token} token={token} />;
}
