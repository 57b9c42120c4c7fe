import { CheckScreen } from '../features/check/check-screen';

export default function Check() {
  return <CheckScreen />;
}
