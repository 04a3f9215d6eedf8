import { parsePathData, scoreDrawing, type KeptAttempt, type Score } from '@mirrot/core';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { ClassEntry } from '$lib/wire-practice';
import { ClassBook, type HandedIn } from './class.svelte';
import { attemptOf, classCsv, inOrder } from './class-columns';

const paths = parsePathData('M100 100L300 100L300 300L100 300Z', (n) => `p${n}`);
const score = scoreDrawing([{ paths, fill: null }], [{ name: 'Box', paths, fill: null }]) as Score;
const attempt = (mean: number, seconds: number): KeptAttempt => ({ createdAt: '2026-03-01T10:00:00.000Z', revision: 1, seconds, presses: 9, lines: 'M0 0L1 1', score: { ...score, mean } }); // prettier-ignore
const entry = (...attempts: KeptAttempt[]): ClassEntry => ({ name: 'Tray', exercise: 'The tray', attempts, truth: null }); // prettier-ignore
const file = (name: string, size = 3): File => new File(['x'.repeat(size)], name, { lastModified: 1 });
const row = (name: string, told: ClassEntry | null, trouble: string | null = null): HandedIn => ({ id: name, file: file(name), name, nth: 0, entry: told, trouble }); // prettier-ignore

describe('the table of a class', () => {
  const rows = [
    row('b 10.zip', entry(attempt(0.4, 300), attempt(2, 60))),
    row('none.zip', entry(), 'Nothing was handed in from it.'),
    row('b 9.zip', entry(attempt(1, 90))),
    row('cut.zip', null, 'It is cut short.'),
  ];
  const names = (key: string, up: boolean, told: 'last' | 'nearest'): string[] =>
    inOrder(rows, { key, up }, told).map((r) => r.id);

  it('sorts names as people count and figures by size; what has none stands last either way', () => {
    expect(names('file', true, 'last')).toEqual(['b 9.zip', 'b 10.zip', 'cut.zip', 'none.zip']);
    expect(names('mean', true, 'last')).toEqual(['b 9.zip', 'b 10.zip', 'none.zip', 'cut.zip']);
    expect(names('mean', false, 'last')).toEqual(['b 10.zip', 'b 9.zip', 'none.zip', 'cut.zip']);
    expect(names('mean', true, 'nearest')).toEqual(['b 10.zip', 'b 9.zip', 'none.zip', 'cut.zip']);
    expect(names('nothing of the kind', true, 'last')).toEqual(names('file', true, 'last'));
  });

  it('tells of the last attempt or of the nearest', () => {
    expect(attemptOf(rows[0]!, 'last')!.seconds).toBe(60);
    expect(attemptOf(rows[0]!, 'nearest')!.seconds).toBe(300);
    expect(attemptOf(rows[1]!, 'nearest')).toBeNull();
  });

  // Source outside: RFC 4180, read back by Papa Parse.
  it('is written as CSV that a spreadsheet reads back, whatever stands in the names', async () => {
    const odd = row('=1+1, "mine"\n.zip', entry(attempt(0.51239, 61.4)));
    const { default: Papa } = await import('papaparse');
    const { data, errors } = Papa.parse<string[]>(await classCsv([odd, ...rows], 'last'));
    expect(errors).toEqual([]);
    expect(data).toHaveLength(6);
    expect(data.every((line) => line.length === data[0]!.length)).toBe(true);
    const [head, first] = data as [string[], string[]];
    const of = (title: string): string => first[head.indexOf(title)]!;
    expect(first[0]).toBe('\'=1+1, "mine"\n.zip');
    expect([of('mean distance, px'), of('time at work, s'), of('anchors'), of('anchors of the original')]).toEqual(['0.512', '61', '4', '4']); // prettier-ignore
  });
});

describe('the book of a class', () => {
  afterEach(() => void vi.unstubAllGlobals());
  /** A server that answers when it is let, by the file's name. */
  function server() {
    const asked: string[] = [];
    const waiting: (() => void)[] = [];
    vi.stubGlobal('fetch', (path: string, init?: { body: FormData; signal?: AbortSignal }) => {
      const { body, signal } = init ?? {};
      const name = (body?.get('file') as File | undefined)?.name ?? '';
      asked.push(`${path} ${name}`.trim());
      return new Promise((resolve, reject) => {
        signal?.addEventListener('abort', () => reject(new DOMException('Stopped', 'AbortError')));
        const answer =
          path === '/api/projects/import' ? { projects: [{ id: `of-${name}` }] }
          : { entries: name === 'two.zip' ? [entry(), entry(attempt(1, 1))] : [{ name, exercise: null, attempts: [], truth: null }] }; // prettier-ignore
        const broken = Response.json(
          { error: { code: 'bundle', message: 'It is broken.' } },
          { status: 422 },
        );
        waiting.push(() => resolve(name === 'bad.zip' ? broken : Response.json(answer)));
      });
    });
    return { asked, next: () => vi.waitFor(() => (expect(waiting).not.toHaveLength(0), waiting.shift()!())) };
  }

  it('reads one file after the other, each once, and tells what is wrong with one in its line', async () => {
    const { asked, next } = server();
    const book = new ClassBook();
    const added = book.add([file('two.zip'), file('bad.zip'), file('bad.zip')]);
    expect(book.progress).toEqual({ done: 0, of: 2 });
    await next();
    await vi.waitFor(() => expect(book.rows).toHaveLength(2));
    // More come while one is read; one that is there, or on its way, is not read again.
    await book.add([file('two.zip'), file('bad.zip'), file('plain.zip')]);
    expect(book.progress).toEqual({ done: 1, of: 3 });
    await next();
    await next();
    await added;
    expect(asked.map((a) => a.split(' ')[1])).toEqual(['two.zip', 'bad.zip', 'plain.zip']);
    expect(book.rows.map((r) => r.name)).toEqual(['two.zip: Tray', 'two.zip: Tray', 'bad.zip', 'plain.zip']);
    expect(book.rows.map((r) => [r.nth, r.trouble])).toEqual([[0, 'Nothing was handed in from it.'], [1, null], [0, 'It is broken.'], [0, 'No exercise is practised in it.']]); // prettier-ignore
    expect(book.progress).toBeNull();
    // What could not be read is tried once more.
    const again = book.add([file('bad.zip')]);
    await next();
    await again;
    expect(book.rows.map((r) => r.file.name)).toEqual(['two.zip', 'two.zip', 'plain.zip', 'bad.zip']);
  });

  it('stops, keeps what was read, and takes more afterwards', async () => {
    const { next } = server();
    const book = new ClassBook();
    const added = book.add([file('a.zip'), file('b.zip'), file('c.zip')]);
    await next();
    await vi.waitFor(() => expect(book.rows).toHaveLength(1));
    book.stop();
    const more = book.add([file('d.zip')]);
    // What answers afterwards is heard by nobody.
    await next();
    await next();
    await Promise.all([added, more]);
    expect(book.rows.map((r) => r.file.name)).toEqual(['a.zip', 'd.zip']);
  });

  it('opens a file’s projects once, and again where that failed', async () => {
    const { asked, next } = server();
    const book = new ClassBook();
    const one = row('a.zip', entry(attempt(1, 1)));
    const opened = [book.open(one), book.open(one)];
    await next();
    expect(await Promise.all(opened)).toEqual(['of-a.zip', 'of-a.zip']);
    const there = book.open(one);
    await next();
    expect(await there).toBe('of-a.zip');
    expect(asked).toEqual(['/api/projects/import a.zip', '/api/projects/of-a.zip']);
    const bad = row('bad.zip', entry(attempt(1, 1)));
    const failed = expect(book.open(bad)).rejects.toThrow('It is broken.');
    await next();
    await failed;
    const again = expect(book.open(bad)).rejects.toThrow('It is broken.');
    await next();
    await again;
    expect(asked).toHaveLength(4);
  });
});
