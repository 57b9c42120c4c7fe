import { createHash, createHmac, randomBytes } from 'node:crypto';
import { itemAt } from '@gatepath/core/sure';

let lastMs = 0;
let counter = 0;

/** Returns a UUIDv7 (RFC 9562): random, and sortable by creation time, also within a millisecond. */
export function newId(nowMs: number = Date.now()): string {
  // A counter in the twelve bits after the time keeps ids of one millisecond in order.
  if (nowMs <= lastMs) counter++;
  else {
    lastMs = nowMs;
    counter = randomBytes(2).readUInt16BE() & 0x3ff;
  }
  if (counter > 0xfff) {
    lastMs++;
    counter = 0;
  }
  const b = randomBytes(16);
  b.writeUIntBE(lastMs, 0, 6);
  b[6] = 0x70 | (counter >> 8);
  b[7] = counter & 0xff;
  b[8] = (itemAt(b, 8) & 0x3f) | 0x80;
  const h = b.toString('hex');
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-${h.slice(12, 16)}-${h.slice(16, 20)}-${h.slice(20)}`;
}

/** Returns a secret of 192 random bits, safe in a URL. */
export function newSecret(): string {
  return randomBytes(24).toString('base64url');
}

/** Returns the SHA-256 hash as lower-case hex. */
export function sha256(data: string | Uint8Array): string {
  return createHash('sha256').update(data).digest('hex');
}

/** Returns the keyed hash of a secret, which is stored in place of the secret. */
export function hashSecret(secret: string, key: string): string {
  return createHmac('sha256', key).update(secret).digest('hex');
}
