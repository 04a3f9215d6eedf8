import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { networkInterfaces, hostname } from 'node:os';
import { join } from 'node:path';

// On the machine itself Mirrot is open to whoever sits at it. On any other address it wants a key.

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]', '::1'];

const listensOn = (): string => process.env.HOST ?? '127.0.0.1';
const listensEverywhere = (): boolean => ['0.0.0.0', '::', '[::]'].includes(listensOn());

/** Whether requests have to bring the key. */
export const needsKey = (): boolean => !LOOPBACK.includes(listensOn());

/** Hosts this server answers to: itself by any loopback name, the one it listens on, and on all of them its own names. */
export function isOwnHost(host: string | null, anyPort = false): boolean {
  if (!host) return false;
  const [, name, port] = /^(.*?)(?::(\d+))?$/.exec(host)!;
  const own = listensEverywhere()
    ? [
        hostname(),
        ...Object.values(networkInterfaces()).flatMap((all) =>
          (all ?? []).map((a) => (a.family === 'IPv6' ? `[${a.address}]` : a.address)),
        ),
      ]
    : [listensOn()];
  const names = [...LOOPBACK, ...own].map((n) => n.toLowerCase());
  return names.includes(name!.toLowerCase()) && (anyPort || (port ?? '80') === (process.env.PORT ?? '4310'));
}

/** Bytes of a key that is made here: 80 bits, 16 letters and digits to type. */
const KEY_BYTES = 10;
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** The access key: MIRROT_KEY, or one made once and kept in the data folder. */
export function accessKey(): string {
  if (process.env.MIRROT_KEY) return process.env.MIRROT_KEY;
  const file = join(process.env.MIRROT_DATA ?? 'data', 'access-key');
  if (existsSync(file)) return readFileSync(file, 'utf8').trim();
  const letters = Array.from(randomBytes(2 * KEY_BYTES), (b) => LETTERS[b % LETTERS.length]).slice(0, 16);
  const key = letters.join('').replace(/(.{4})(?=.)/g, '$1-');
  writeFileSync(file, `${key}\n`, { mode: 0o600 });
  return key;
}

export const COOKIE = 'mirrot-access';

/** What a browser is given for the key: follows from the key, so it holds after a restart and ends with another key. */
export const cookieValue = (): string =>
  createHmac('sha256', accessKey()).update('mirrot access').digest('base64url');

const alike = (a: string, b: string): boolean => {
  const [x, y] = [Buffer.from(a), Buffer.from(b)];
  return x.length === y.length && timingSafeEqual(x, y);
};

export const isCookie = (value: string | undefined): boolean =>
  value !== undefined && alike(value, cookieValue());
export const isKey = (value: string): boolean =>
  alike(
    createHmac('sha256', 'key').update(value.trim()).digest('hex'),
    createHmac('sha256', 'key').update(accessKey()).digest('hex'),
  );

/** Wrong keys that may come from one address, and from all, within a minute. */
const TRIES = 5;
const TRIES_OF_ALL = 60;
const MINUTE = 60_000;
const ALL = '*';
const tries = new Map<string, number[]>();

/** Seconds to wait before this address may try again; 0 when it may now. */
export function secondsToWait(address: string, now = Date.now()): number {
  for (const [key, times] of tries) {
    const recent = times.filter((t) => now - t < MINUTE);
    if (recent.length > 0) tries.set(key, recent);
    else tries.delete(key);
  }
  const over = ([key, most]: readonly [string, number]): number => {
    const times = tries.get(key) ?? [];
    return times.length < most ? 0 : Math.ceil((times.at(-most)! + MINUTE - now) / 1000);
  };
  return Math.max(...([[address, TRIES], [ALL, TRIES_OF_ALL]] as const).map(over)); // prettier-ignore
}

/** Counts a wrong key. */
export function countTry(address: string, now = Date.now()): void {
  for (const key of [address, ALL]) tries.set(key, [...(tries.get(key) ?? []), now]);
}
