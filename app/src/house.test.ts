import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

// ESLint's rule against circles passes over imports of types alone. A file that needs the types of one that needs it
// cannot be read by itself either.

const ROOT = resolve(import.meta.dirname, '../..');

const sources = (directory: string): string[] =>
  readdirSync(directory, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !/\.test\.ts$|(^|\/)testing\.ts$|\.d\.ts$/.test(name))
    .map((name) => join(directory, name));

/** The files of the house that a file imports, types counted. */
function importsOf(file: string): string[] {
  return ts.preProcessFile(readFileSync(file, 'utf8')).importedFiles.flatMap(({ fileName }) => {
    const at = fileName.startsWith('$lib/')
      ? join(ROOT, 'app/src/lib', fileName.slice(5))
      : fileName.startsWith('.')
        ? resolve(dirname(file), fileName)
        : null;
    return at && existsSync(`${at}.ts`) ? [`${at}.ts`] : [];
  });
}

/** A way round from a file back to itself; null where there is none anywhere. */
function circle(files: readonly string[]): string | null {
  const needs = new Map(files.map((file) => [file, importsOf(file)]));
  const done = new Set<string>();
  const way: string[] = [];
  const visit = (file: string): string | null => {
    if (done.has(file)) return null;
    if (way.includes(file))
      return [...way.slice(way.indexOf(file)), file].map((f) => relative(ROOT, f)).join(' → ');
    way.push(file);
    for (const next of needs.get(file) ?? []) {
      const found = visit(next);
      if (found) return found;
    }
    way.pop();
    done.add(file);
    return null;
  };
  for (const file of files) {
    const found = visit(file);
    if (found) return found;
  }
  return null;
}

describe('the house', () => {
  it.each(['core/src', 'app/src'])('has no file in %s that needs itself, types counted', (room) => {
    const files = sources(join(ROOT, room));
    expect(files.length).toBeGreaterThan(100);
    expect(circle(files)).toBeNull();
  });
});
