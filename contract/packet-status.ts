import type * as yup from 'yup';
import { PACKET_STATUSES } from '@gatepath/core/routing';
import { oneOf } from './answer-fields';

/** Where a packet stands, drafts too. */
export const anyPacketStatus = oneOf(['drafting', ...PACKET_STATUSES]);
/** The type of `anyPacketStatus`. */
export type AnyPacketStatus = yup.InferType<typeof anyPacketStatus>;
