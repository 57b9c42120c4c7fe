/** What every step of the ceremony is given. */
import type { SigningView } from '@gatepath/contract';
import type { Signing } from './use-signing';

/** Where the client has turned to beside the way itself. */
export type Aside = 'read' | 'decline' | 'hand' | 'more' | 'ask' | 'hand_over' | 'not_me' | 'pages';

export interface StepProps {
  token: string;
  signing: Signing;
  view: SigningView;
  onBack: () => void;
  onSide: (side: Aside) => void;
}
