/** Answers about sealed copies that were verified. */
import type * as yup from 'yup';
import { flag, list, named, shape, text, whole } from './answer-fields';

const revision = shape({
  /** From 1. */
  n: whole(),
  whole: flag(),
  /** Why not, in words; empty when whole. */
  why: text(),
  /** Whose acts it holds, and what they did, as the seal says. */
  name: text(),
  reason: text(),
  /** Time in the seal, ISO 8601, as the sealing server's clock gave it. */
  at: text().nullable(),
  /** The name in the certificate it was sealed with. */
  signer: text().nullable(),
  fingerprint: text().nullable(),
  /** The first so many bytes of the file are this revision. */
  end: whole(),
  /** SHA-256 of those bytes. */
  sha256: text(),
  /** Whether the certificate is vouched for by nobody but its owner. */
  selfMade: flag(),
  /** Pages of the file as it was then. */
  pages: whole().nullable(),
});

/** What a sealed PDF says when it is checked. */
export const copyVerification = named('Check', {
  fileName: text(),
  whole: flag(),
  /** Why not, in words; empty when whole. */
  why: text(),
  revisions: list(revision),
  /** Whether this server made the last seal. */
  ours: flag(),
});
/** The type of `copyVerification`. */
export type CopyVerification = yup.InferType<typeof copyVerification>;
/** One signed revision of a sealed PDF, as the file itself tells of it. */
export type VerifiedRevision = Omit<CopyVerification['revisions'][number], 'selfMade' | 'pages'>;
