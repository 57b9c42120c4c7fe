import type { KitTrial } from '@gatepath/contract';

/** Returns whether a kit can be sent as previewed: no finding of the gate check stops it. */
export const canSend = (trial: KitTrial) => trial.findings.every((f) => f.severity !== 'stops');
