import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';

/**
 * scrypt (RFC 7914) with 32 MiB for one hash: N = 2^15, r = 8, p = 3, one of the settings of the OWASP Password Storage
 * Cheat Sheet. Each hash holds them, so that old passphrases stay readable after a stronger setting.
 */
const N = 32_768;
const R = 8;
const P = 3;
const BYTES = 32;
const MOST_MEMORY = 64 * 1024 * 1024;

interface Cost {
  readonly n: number;
  readonly r: number;
  readonly p: number;
}

/** The key of a passphrase. Valid: N a power of two. Source: RFC 7914. */
export const scryptKey = (
  passphrase: string,
  { salt, bytes, n, r, p }: Cost & { readonly salt: Buffer; readonly bytes: number },
): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    // One passphrase, typed on two keyboards: accents may come composed or not (NIST SP 800-63B 5.1.1.2).
    scrypt(passphrase.normalize('NFKC'), salt, bytes, { N: n, r, p, maxmem: MOST_MEMORY }, (error, key) =>
      error ? reject(error) : resolve(key),
    );
  });

// One hash at a time: a flood of wrong passphrases must not take all memory and every thread.
let before: Promise<unknown> = Promise.resolve();
const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
  const turn = before.then(work, work);
  before = turn.catch(() => undefined);
  return turn;
};

export const hashPassphrase = (passphrase: string): Promise<string> =>
  inTurn(async () => {
    const salt = randomBytes(16);
    const key = await scryptKey(passphrase, { salt, bytes: BYTES, n: N, r: R, p: P });
    return ['scrypt', N, R, P, salt.toString('base64'), key.toString('base64')].join('$');
  });

/** The hash compared for an unknown person, so that the answer takes as long. */
const NOBODY = ['scrypt', N, R, P, Buffer.alloc(16).toString('base64'), Buffer.alloc(BYTES).toString('base64')].join(
  '$',
);

/** Whether a passphrase is the one that was hashed; it takes as long where there is none. */
export const isPassphrase = (passphrase: string, stored: string | null): Promise<boolean> =>
  inTurn(async () => {
    const [, n, r, p, salt, key] = (stored ?? NOBODY).split('$');
    const wanted = Buffer.from(key ?? '', 'base64');
    const got = await scryptKey(passphrase, {
      salt: Buffer.from(salt ?? '', 'base64'),
      bytes: wanted.length,
      n: Number(n),
      r: Number(r),
      p: Number(p),
    });
    return stored !== null && timingSafeEqual(got, wanted);
  });

/** Something random that is shown once, 256 bits: a session, a program's key. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** The stored form of a token: a reader of the file cannot use it. A token is random, so a plain hash is enough. */
export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Letters that are not mistaken for one another when they are read aloud. */
const LETTERS = 'ABCDEFGHJKMNPQRTUVWXY346789';
const GROUPS = 4;

/** A code to be read aloud and typed once: four groups of four letters, 76 bits. */
export const newCode = (): string => {
  const letters = [...randomBytes(64)].filter((b) => b < LETTERS.length * Math.floor(256 / LETTERS.length));
  const text = letters.map((b) => LETTERS[b % LETTERS.length]).join('');
  return Array.from({ length: GROUPS }, (_, i) => text.slice(4 * i, 4 * i + 4)).join('-');
};

/** Spaces, hyphens and case are not part of a code. */
export const codeHash = (code: string): string => tokenHash(code.toUpperCase().replace(/[^A-Z0-9]/g, ''));
