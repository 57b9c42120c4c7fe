import { useLocalSearchParams } from 'expo-router';
import { Ceremony } from '../../ceremony-place';

export default function Sign() {
  const { token } = useLocalSearchParams<{ token: string }>();
  return <Ceremony key={token} token={token} />;
}
