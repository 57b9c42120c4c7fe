/** The props of every step of the ceremony. */
import type { SigningView } from '@gatepath/contract';
import type { Signing } from './use-signing';

/** Where the client went besides the main way. */
export type Aside = 'read' | 'decline' | 'hand' | 'more' | 'ask' | 'hand_over' | 'not_me' | 'pages';

export interface StepProps {
  token: string;
  signing: Signing;
  view: SigningView;
  onBack: () => void;
  onSide: (side: Aside) => void;
}
