import { useLocalSearchParams } from 'expo-router';
import { Ceremony } from '../../places';

export default function Sign() {
  const { token } = useLocalSearchParams<{ token: string }>();
  return <Ceremony key={token} token={token} />;
}
