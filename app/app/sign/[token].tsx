import { useLocalSearchParams } from 'expo-router';
import { Ceremony } from '../../features/signing/ceremony';

export default function Sign() {
  const { token } = useLocalSearchParams<{ token: string }>();
  return <Ceremony key={token} token={token} />;
}
