import { compose, findShape, mapShape, pathBounds, removeNodes, translation, type LetterPaths, type Lettering } from '@mirrot/core'; // prettier-ignore
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { benchWith, shapeWith, square, type Bench } from '$lib/bed/testing';
import { chooseShapes } from '$lib/desk/choice';
import { changeLettering, chosenLettering, makePaths, standOn, turnSide, writeLine } from './lettering';

// The worker's part is done here: a square for each letter, an em wide.
let letters: (font: string, lettering: Lettering, id: string) => Promise<LetterPaths>;
const asked: { font: string; lettering: Lettering }[] = [];
vi.mock('$lib/workers/reading', () => ({
  readingWorker: {
    ask: (question: (work: { letters: typeof letters }) => unknown) =>
      question({
        letters: (font, lettering, id) => {
          asked.push({ font, lettering });
          return letters(font, lettering, id);
        },
      }),
  },
}));
const squares = async (_font: string, { text, size }: Lettering, id: string): Promise<LetterPaths> => ({
  paths: [...text].map((_, i) => square(`${id}-${i}`, i * size, -size, size)),
  missing: [],
  cut: false,
});

let b: Bench;
beforeEach(async () => {
  letters = squares;
  asked.length = 0;
  b = benchWith([shapeWith('wave', [square('w', 0, 0, 50)])], 'refine');
  await writeLine(b.desk);
});
const line = (): NonNullable<ReturnType<typeof chosenLettering>> => chosenLettering(b.desk)!;

describe('a line of text', () => {
  it('stands in the middle of what is seen, chosen, meant so, in a font that ships', () => {
    const { name, lettering, paths, meant } = line();
    expect([name, lettering.text, lettering.font.id, meant]).toEqual(['Seeds', 'Seeds', 'bricolage', true]);
    expect(asked[0]!.lettering.placement).toEqual([1, 0, 0, 1, 0, 0]);
    const { view, bed } = b.desk.looking;
    const boxes = paths.map(pathBounds);
    const middle = (boxes[0]!.x0 + boxes.at(-1)!.x1) / 2;
    expect(middle * view.scale + view.tx).toBeCloseTo(bed.width / 2, 6);
    b.desk.undo();
    expect(b.shapes.map(({ id }) => id)).toEqual(['wave']);
  });

  it('typed letter by letter is one step, and its name goes along until it is named', async () => {
    for (const text of ['m', 'mi', 'min', 'mint']) await changeLettering(b.desk, { text }, 'text');
    expect([line().name, line().paths.length]).toEqual(['mint', 4]);
    b.desk.undo();
    expect(line().lettering.text).toBe('Seeds');
    b.desk.redo();
    b.desk.change(
      'Rename',
      (draft) => void ((draft.layers[0]!.children[1] as { name: string }).name = 'Label'),
    );
    await changeLettering(b.desk, { text: 'dill' }, 'text');
    expect([line().name, line().lettering.text]).toEqual(['Label', 'dill']);
  });

  it('moved while it is set goes where it was moved to; wishes made meanwhile are gathered', async () => {
    let go = (): void => {};
    letters = async (...wish) => {
      await new Promise<void>((done) => (go = done));
      return squares(...wish);
    };
    const first = changeLettering(b.desk, { text: 'a' }, 'text');
    await vi.waitFor(() => expect(asked).toHaveLength(2));
    const before = line().lettering.placement;
    b.desk.change('Move', mapShape(line(), translation(30, 40)));
    void changeLettering(b.desk, { text: 'ab' }, 'text');
    void changeLettering(b.desk, { size: 7 }, 'size');
    go();
    await vi.waitFor(() => expect(asked).toHaveLength(3));
    go();
    await first;
    expect(asked).toHaveLength(3);
    expect(line().lettering).toMatchObject({
      text: 'ab',
      size: 7,
      placement: compose(translation(30, 40), before),
    });
    expect(pathBounds(line().paths[0]!).x0).toBeCloseTo(line().lettering.placement[4], 9);
  });

  it('is not forgotten when another text is chosen and changed before its turn', async () => {
    const first = line().id;
    await writeLine(b.desk);
    const second = line().id;
    let go = (): void => {};
    letters = async (...wish) => {
      await new Promise<void>((done) => (go = done));
      return squares(...wish);
    };
    const making = changeLettering(b.desk, { size: 9 }, 'size');
    void changeLettering(b.desk, { text: 'dill' }, 'text');
    b.desk.choose(chooseShapes([first]));
    void changeLettering(b.desk, { text: 'mint' }, 'text');
    for (let k = 3; k <= 5; k++) {
      await vi.waitFor(() => expect(asked).toHaveLength(k));
      go();
    }
    await making;
    expect([first, second].map((id) => b.desk.shapeOf(id)!.lettering!.text)).toEqual(['mint', 'dill']);
  });

  it('gone, or made paths, while it is set stays so', async () => {
    const { id } = line();
    letters = async (...wish) => {
      b.desk.change('Delete', removeNodes([id]));
      return squares(...wish);
    };
    await changeLettering(b.desk, { text: 'a' }, 'text');
    expect(findShape(b.desk.art, id)).toBeNull();
    b.desk.undo();
    b.desk.choose(chooseShapes([id]));
    letters = async (...wish) => {
      makePaths(b.desk);
      return squares(...wish);
    };
    await changeLettering(b.desk, { text: 'a' }, 'text');
    expect(b.desk.shapeOf(id)!.lettering).toBeUndefined();
    expect(b.desk.shapeOf(id)!.paths).toHaveLength(5);
  });

  it('that cannot be set says why and stays as it was', async () => {
    letters = () => Promise.reject(new Error('The font of this text is not here any more.'));
    const before = b.desk.art;
    await changeLettering(b.desk, { font: { id: 'gone', name: 'Gone' } }, 'font');
    expect(b.desk.art).toBe(before);
    expect(b.desk.notice).toMatchObject({ text: 'The font of this text is not here any more.', tone: 'bad' });
    expect(asked.at(-1)!.font).toBe('/api/fonts/gone');
  });

  it('stands on a line with the line’s place taken back, and not on itself', async () => {
    standOn(b.desk, line(), { x: 0, y: 0 });
    expect(b.desk.notice?.text).toMatch(/cannot stand on itself/);
    standOn(b.desk, b.desk.shapeOf('wave')!, { x: 52, y: 20 });
    await vi.waitFor(() => expect(line().lettering.along).toBeDefined());
    const { along, placement } = line().lettering;
    // From where it was pressed: down the second side of the square.
    expect(along!.closed).toBe(true);
    expect(along!.start).toBeCloseTo(70, 6);
    expect(along!.anchors[0]!.x + placement[4]).toBeCloseTo(0, 9);
    turnSide(b.desk);
    await vi.waitFor(() => expect(line().lettering.along!.start).toBeCloseTo(130, 6));
    await changeLettering(b.desk, { along: undefined }, 'along');
    expect('along' in line().lettering).toBe(false);
  });

  it('says what is left out', async () => {
    letters = async (...wish) => ({ ...(await squares(...wish)), missing: ['Ж'] });
    await changeLettering(b.desk, { text: 'aЖ' }, 'text');
    expect(b.desk.notice?.text).toBe('Bricolage Grotesque has no “Ж”: it is left out.');
    letters = async (...wish) => ({ ...(await squares(...wish)), cut: true });
    await changeLettering(b.desk, { text: 'long' }, 'text');
    expect(b.desk.notice?.text).toMatch(/longer than the line/);
  });
});
