import { expect, it } from 'vitest';
import type { ProjectAnswer } from '$lib/wire';
import { foldersOf, onShelf, rememberedOrder } from './order';

const project = (name: string, createdAt: string, updatedAt: string): ProjectAnswer => ({
  id: name, name, createdAt, updatedAt, revision: 0, sheet: { width: 1, height: 1, unit: 'px' }, shapes: 0, painted: 0, anchors: 0, folder: '', openedAt: null, drift: null, practised: null,
}); // prettier-ignore
const shelf = [
  project('Label 10', '2026-01-03', '2026-02-01'),
  project('label 2', '2026-01-01', '2026-02-03'),
  project('Ähre', '2026-01-02', '2026-02-02'),
];
const names = (text: string, order: Parameters<typeof onShelf>[2]): string[] =>
  onShelf(shelf, text, order).map((p) => p.name);

it('projects stand by when they changed, when they were made, or by name as people count', () => {
  expect(names('', 'changed')).toEqual(['label 2', 'Ähre', 'Label 10']);
  expect(names('', 'made')).toEqual(['Label 10', 'Ähre', 'label 2']);
  expect(names('', 'name')).toEqual(['Ähre', 'label 2', 'Label 10']);
  expect(shelf[0]!.name).toBe('Label 10');
});

it('stand by when they were opened last, those never opened at the end', () => {
  const opened = shelf.map((p, i) => ({ ...p, openedAt: ['2026-03-01', null, '2026-03-02'][i]! }));
  expect(onShelf(opened, '', 'opened').map((p) => p.name)).toEqual(['Ähre', 'Label 10', 'label 2']);
});

it('are found by a part of the name, whatever its case', () => {
  expect(names(' LABEL', 'changed')).toEqual(['label 2', 'Label 10']);
  expect(names('ähr', 'changed')).toEqual(['Ähre']);
  expect(names('gourd', 'changed')).toEqual([]);
});

it('the order is remembered, and what is not known is the first', () => {
  const kept = (value: string | null) => rememberedOrder({ getItem: () => value });
  expect([kept('name'), kept('size'), kept(null)]).toEqual(['name', 'changed', 'changed']);
});

it('stand in folders named by a word; with none chosen all are seen', () => {
  const filed = shelf.map((p, i) => ({ ...p, folder: ['class 10', 'class 4', ''][i]! }));
  expect(foldersOf(filed)).toEqual(['class 4', 'class 10']);
  expect(onShelf(filed, '', 'name', 'class 4').map((p) => p.name)).toEqual(['label 2']);
  expect(onShelf(filed, '', 'name')).toHaveLength(3);
  expect(onShelf(filed, 'gone', 'name', 'class 4')).toEqual([]);
});
