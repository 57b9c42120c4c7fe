import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';

/** scrypt with N = 2^15, r = 8, p = 1: 32 MB and some tenths of a second per try (RFC 7914). */
const COST: ScryptOptions = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };

function derive(password: string, salt: Buffer, options: ScryptOptions): Promise<Buffer> {
  return new Promise((resolve, reject) =>
    scrypt(password.normalize('NFKC'), new Uint8Array(salt), 32, options, (e, key) => (e ? reject(e) : resolve(key))),
  );
}

/** Returns the stored form of a password: scrypt$N$r$p$salt$key, base64url. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derive(password, salt, COST);
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64url'), key.toString('base64url')].join('$');
}

/** Returns whether a password matches a stored form. Without one it takes as long and returns false. */
export async function checkPassword(password: string, stored: string | null): Promise<boolean> {
  const [, n, r, p, salt, key] = (stored ?? `scrypt$${COST.N}$8$1$AAAAAAAAAAAAAAAAAAAAAA$AAAA`).split('$');
  const derived = await derive(password, Buffer.from(salt!, 'base64url'), {
    ...COST,
    N: Number(n),
    r: Number(r),
    p: Number(p),
  });
  const expected = Buffer.from(key!, 'base64url');
  return expected.length === derived.length && timingSafeEqual(new Uint8Array(expected), new Uint8Array(derived));
}
