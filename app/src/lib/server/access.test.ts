import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import {
  accessKey,
  cookieValue,
  countTry,
  isCookie,
  isKey,
  isOwnHost,
  needsKey,
  secondsToWait,
} from './access';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'mirrot-key-'));
  vi.stubEnv('MIRROT_DATA', folder);
  vi.stubEnv('PORT', '4310');
});
afterEach(() => {
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true });
});

describe('the access key', () => {
  it('is wanted on any address but this machine’s own', () => {
    for (const [host, wanted] of [
      ['127.0.0.1', false],
      ['localhost', false],
      ['::1', false],
      ['0.0.0.0', true],
      ['192.168.1.7', true],
    ] as const) {
      // prettier-ignore
      vi.stubEnv('HOST', host);
      expect(needsKey(), host).toBe(wanted);
    }
    vi.stubEnv('HOST', undefined);
    expect(needsKey()).toBe(false);
  });

  it('is the one given, or made once and kept where only its owner reads it', () => {
    const made = accessKey();
    expect(made).toMatch(/^([a-z2-9]{4}-){3}[a-z2-9]{4}$/);
    expect(accessKey()).toBe(made);
    expect(readFileSync(join(folder, 'access-key'), 'utf8').trim()).toBe(made);
    expect(statSync(join(folder, 'access-key')).mode & 0o077).toBe(0);
    expect([isKey(made), isKey(` ${made} `), isKey(`${made}x`), isKey('')]).toEqual([
      true,
      true,
      false,
      false,
    ]);
    vi.stubEnv('MIRROT_KEY', 'quillmere');
    expect([isKey('quillmere'), isKey(made)]).toEqual([true, false]);
  });

  it('gives a cookie that ends with it', () => {
    const cookie = cookieValue();
    expect([isCookie(cookie), isCookie(undefined), isCookie(''), isCookie(`${cookie}a`)]).toEqual([true, false, false, false]); // prettier-ignore
    expect(cookie).not.toContain(accessKey());
    vi.stubEnv('MIRROT_KEY', 'another');
    expect(isCookie(cookie)).toBe(false);
  });

  it('may be tried wrong five times a minute from one address, sixty from all', () => {
    for (let k = 0; k < 5; k++) {
      expect(secondsToWait('a', 1000 * k)).toBe(0);
      countTry('a', 1000 * k);
    }
    expect(secondsToWait('a', 5000)).toBe(55);
    expect(secondsToWait('b', 5000)).toBe(0);
    expect(secondsToWait('a', 61_000)).toBe(0);
    for (let k = 0; k < 60; k++) countTry(`x${k}`, 200_000);
    expect(secondsToWait('new', 201_000)).toBe(59);
    expect(secondsToWait('new', 261_000)).toBe(0);
  });
});

describe('the host', () => {
  it('has to be this server’s own, by name and port', () => {
    vi.stubEnv('HOST', '192.168.1.7');
    for (const [host, own] of [
      ['127.0.0.1:4310', true],
      ['localhost:4310', true],
      ['192.168.1.7:4310', true],
      ['192.168.1.7:80', false],
      ['192.168.1.8:4310', false],
      ['evil.example:4310', false],
      ['', false],
    ] as const)
      // prettier-ignore
      expect(isOwnHost(host), host).toBe(own);
    expect(isOwnHost(null)).toBe(false);
  });
});
