/**
 * A packet's chain of events as a file: canonical JSON (RFC 8785), every event with its hash,
 * signed by the firm's seal. Described in docs/formats.md.
 */
import { createHash, createPrivateKey, sign, verify, X509Certificate } from 'node:crypto';
import { canonicalJson, firstBreak, type ChainedEvent } from '@gatepath/core/proof';
import { type PacketEvent, type PacketState, replay } from '@gatepath/core/routing';
import type { SealVerification } from '../pdf-sealing/verify';
import { lastOf } from '@gatepath/core/sure';

/** Format name of an exported chain of events. */
export const CHAIN_FORMAT = 'gate-path-chain/1';

/** An exported chain of events. */
export interface ChainFile {
  format: typeof CHAIN_FORMAT;
  packetId: string;
  events: ChainedEvent<PacketEvent>[];
  /** The firm's seal: certificates in DER, and a signature (RSA, SHA-256) over all but itself; both base64. */
  seal: { certificates: string[]; signature: string };
}

/** Returns the name under which a chain file is downloaded. */
export function chainFileName(packetName: string): string {
  return `${packetName} (events).json`;
}

const digest = (text: string) => createHash('sha256').update(text).digest('hex');

/** Writes a chain file. */
export function writeChain(
  packetId: string,
  events: ChainedEvent<PacketEvent>[],
  seal: { keyPem: string; certificates: Buffer[] },
): string {
  const certificates = seal.certificates.map((c) => c.toString('base64'));
  const content = { format: CHAIN_FORMAT, packetId, events };
  const signature = sign('sha256', signedText(content, certificates), createPrivateKey(seal.keyPem));
  return canonicalJson({ ...content, seal: { certificates, signature: signature.toString('base64') } });
}

/** Returns the bytes that the seal covers: everything in the file but the signature, including its certificates. */
function signedText(content: object, certificates: string[]): Buffer {
  return Buffer.from(canonicalJson({ ...content, seal: { certificates } }));
}

/** The verification of a chain: valid, or where it breaks. */
export type ChainVerification =
  | { whole: true; state: PacketState; events: ChainedEvent<PacketEvent>[]; signer: string }
  | { whole: false; why: string; state: null };

/** Checks a chain file: any changed byte is found. */
export function verifyChain(text: string): ChainVerification {
  const no = (why: string): ChainVerification => ({ whole: false, why, state: null });
  let file: ChainFile;
  try {
    file = JSON.parse(text);
  } catch {
    return no('this is not JSON, or it was damaged');
  }
  if (file?.format !== CHAIN_FORMAT || !Array.isArray(file.events) || !file.seal) return no('this is not a chain file');
  try {
    // A file that is not in canonical form was written by another program.
    if (canonicalJson(file) !== text) return no('it was changed after it was written');
    const broken = firstBreak(file.events, digest);
    if (broken !== null) return no(`the chain breaks at event ${broken}`);
    if (file.events.some((e) => e.event.packetId !== file.packetId)) return no('an event is of another packet');
    const { seal, ...content } = file;
    const chain = seal.certificates.map((c) => Buffer.from(c, 'base64'));
    const certificates = chain.map((c) => new X509Certificate(new Uint8Array(c)));
    const own = certificates[0];
    if (!own) return no('it carries no seal');
    const signature = Buffer.from(seal.signature, 'base64');
    if (signature.toString('base64') !== seal.signature) return no('its seal is damaged');
    if (!verify('sha256', signedText(content, seal.certificates), own.publicKey, new Uint8Array(signature)))
      return no('its seal does not belong to it');
    const state = replay(file.events.map((e) => e.event));
    if (!state) return no('it holds no events');
    return { whole: true, state, events: file.events, signer: /^CN=(.+)$/m.exec(own.subject)?.[1] ?? own.subject };
  } catch {
    return no('it was damaged');
  }
}

/**
 * Returns where a sealed copy and a chain disagree; empty if they agree.
 *
 * @param pdf  the check of the sealed copy's bytes
 */
export function disagreements(pdf: SealVerification, chain: Extract<ChainVerification, { whole: true }>): string[] {
  const { state, events } = chain;
  const own = pdf.revisions.filter((r) => r.event?.packetId === state.packetId);
  if (!own.length) return ['the sealed copy is of another packet'];
  const out: string[] = [];
  const files = new Map<string, { documentId: string; forSeq: number | null }>();
  for (const r of state.revisions)
    for (const d of r.documents) files.set(d.sha256, { documentId: d.documentId, forSeq: r.forSeq });
  for (const d of state.sealed ?? []) files.set(d.sha256, { documentId: d.documentId, forSeq: null });
  const documents = new Set<string>();
  for (const r of own) {
    const event = events[r.event!.seq - 1];
    if (event?.hash !== r.event!.hash) out.push(`seal ${r.n} names an event that the chain does not have`);
    const file = files.get(r.sha256);
    if (!file) {
      out.push(`seal ${r.n} is of a file that the chain does not name`);
      continue;
    }
    documents.add(file.documentId);
    if (file.forSeq !== null && file.forSeq !== r.event!.seq)
      out.push(`seal ${r.n} holds other acts than the chain says`);
  }
  if (documents.size > 1) out.push('its seals are of different documents');
  const [documentId] = documents;
  const missing = state.revisions.filter(
    (rev) => rev.documents.some((d) => d.documentId === documentId) && !own.some((r) => r.event!.seq === rev.forSeq),
  );
  for (const rev of missing) out.push(`the seal of event ${rev.forSeq} is missing`);
  if (state.sealed && !state.sealed.some((s) => s.sha256 === lastOf(own).sha256))
    out.push('it is an earlier state: the seal with the signing record is missing');
  // What was sent is the beginning of the file, byte for byte.
  const plan = state.plan.documents.find((d) => d.id === documentId);
  if (plan && !state.plan.continues && !pdf.before.includes(plan.sha256))
    out.push('the document under the first seal is not the one that was sent');
  return out;
}
