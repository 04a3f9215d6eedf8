import { artText, drawnShapes, parsePathData, type Art, type Shape } from '@mirrot/core';
import { cpSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { beforeEach, describe, expect, it } from 'vitest';
import { openDatabase, type Database } from './database';
import { forgetDocuments, getArt } from './documents';
import { packText } from './entry';
import { attemptsIn, getAnswer, getCoach, getGhost, getPractised, handIn, keepAttempts } from './attempts';
import { listExercises, makeExercise, practiseAgain, startExercise } from './exercises';
import { addProject, deleteProject, getProject, listProjects } from './projects';

const root = fileURLToPath(new URL('../../../../', import.meta.url));
let db: Database;
beforeEach(async () => {
  process.env.MIRROT_EXERCISES = join(root, 'demo', 'exercises');
  db = await openDatabase(':memory:');
});

const shape = (id: string, d: string, more: Partial<Shape> = {}): Shape =>
  ({ id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: null, stroke: null, paths: parsePathData(d, (n) => `${id}-${n}`), ...more }); // prettier-ignore

/** A project's drawing with shapes on it, as if they had been drawn. */
async function draw(project: string, ...shapes: Shape[]): Promise<void> {
  const { art } = await getArt(db, project);
  const drawn: Art = { ...art, layers: [{ ...art.layers[0]!, children: shapes }] };
  await db.updateTable('documents').set({ art: await packText(artText(drawn)) }).where('project_id', '=', project).execute(); // prettier-ignore
  forgetDocuments(db, project);
}
const TRAY = 'M260 230L940 196L952 420L716 432L726 700L470 712L460 444L272 454Z';
const moved = (d: string, by: number): string =>
  d.replace(/([ML])(\d+) /g, (_, letter: string, x: string) => `${letter}${Number(x) + by} `);

describe('an exercise', () => {
  it('is listed in its order without its truth, begun with its picture alone, and its answer kept back', async () => {
    const all = await listExercises(db);
    expect(all.length).toBeGreaterThanOrEqual(14);
    expect(all[0]).toMatchObject({ id: 'tray', tries: 0, best: null, from: null });
    expect(JSON.stringify(all)).not.toContain('truth');
    const project = await startExercise(db, 'tray');
    expect(project.practised).toBe('The seed tray');
    const { art } = await getArt(db, project.id);
    expect(art.pictures).toMatchObject([{ width: 1200, height: 900, locked: true }]);
    expect(drawnShapes(art, art.pictures[0]!)).toEqual([]);
    expect(JSON.stringify(await getPractised(db, project.id))).not.toContain('truth');
    await expect(getAnswer(db, project.id)).rejects.toThrow('once something is handed in');
    await expect(handIn(db, project.id, { seconds: 5, presses: 3 })).rejects.toThrow('Nothing of the exercise is drawn yet'); // prettier-ignore
    await expect(startExercise(db, '../../etc')).rejects.toThrow('no such exercise');
  });

  it('is scored as it is handed in, its attempts kept in order, and the best of them told', async () => {
    const project = await startExercise(db, 'tray');
    await draw(project.id, shape('rough', moved(TRAY, 4)));
    const first = await handIn(db, project.id, { seconds: 60, presses: 20 });
    expect(first.score.worst!.distance).toBeGreaterThan(3.5);
    await draw(project.id, shape('fine', TRAY));
    const second = await handIn(db, project.id, { seconds: 90, presses: 31 });
    expect(second.score.mean).toBeLessThan(0.01);
    const { attempts, truth } = await getAnswer(db, project.id);
    expect(attempts.map((a) => [a.id, a.presses, a.here])).toEqual([[first.id, 20, true], [second.id, 31, true]]); // prettier-ignore
    expect(truth).toHaveLength(1);
    expect((await listExercises(db))[0]).toMatchObject({ tries: 2, best: second.score.mean });
    // Begun again it is another project, which sees what was handed in before, but not the answer.
    const again = await practiseAgain(db, project.id);
    expect((await getPractised(db, again.id)).attempts.map((a) => a.here)).toEqual([false, false]);
    await expect(getAnswer(db, again.id)).rejects.toThrow('once something is handed in here');
  });

  it('that came with a bundle is told of in its own project alone, and counts for nobody here', async () => {
    const mine = await startExercise(db, 'tray');
    await draw(mine.id, shape('fine', TRAY));
    const attempt = await handIn(db, mine.id, { seconds: 60, presses: 20 });
    const theirs = await startExercise(db, 'tray');
    const { id: _id, here: _here, ...handedIn } = attempt;
    await keepAttempts(db, 'tray', theirs.id, [{ ...handedIn, seconds: 5 }, { ...handedIn, seconds: 6 }], true); // prettier-ignore
    expect((await getPractised(db, theirs.id)).attempts.map((a) => [a.seconds, a.here])).toEqual([[5, true], [6, true]]); // prettier-ignore
    expect((await getAnswer(db, theirs.id)).attempts).toHaveLength(2);
    expect((await getPractised(db, mine.id)).attempts.map((a) => a.seconds)).toEqual([60]);
    expect((await listExercises(db))[0]).toMatchObject({ tries: 1 });
    // Handed in there afterwards, it stands with them.
    await draw(theirs.id, shape('fine', TRAY));
    await handIn(db, theirs.id, { seconds: 7, presses: 1 });
    expect(await attemptsIn(db, theirs.id)).toMatchObject([{ seconds: 5 }, { seconds: 6 }, { seconds: 7, revision: 0 }]); // prettier-ignore
    await expect(getGhost(db, (await startExercise(db, 'leaf')).id)).rejects.toThrow(
      'nothing to race against',
    );
  });

  it('is left out where its file cannot be read; the others stand', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'mirrot-exercises-'));
    cpSync(process.env.MIRROT_EXERCISES!, folder, { recursive: true });
    writeFileSync(join(folder, '02-arch.json'), '{"id": "arch", cut short');
    writeFileSync(join(folder, '03-leaf.json'), '{"id": "leaf"}');
    const all = await listExercises(db);
    process.env.MIRROT_EXERCISES = folder;
    expect((await listExercises(db)).map(({ id }) => id)).toEqual(all.map(({ id }) => id).filter((id) => id !== 'arch' && id !== 'leaf')); // prettier-ignore
    rmSync(folder, { recursive: true });
  });

  it('is coached by the truth, which is not told', async () => {
    const project = await startExercise(db, 'tray');
    expect(await getCoach(db, project.id)).toEqual({ advice: { code: 'begin', anchor: null } });
    await draw(project.id, shape('rough', moved(TRAY, 9)));
    expect((await getCoach(db, project.id)).advice?.code).toBe('anchor-off');
    await draw(project.id, shape('fine', TRAY));
    expect(await getCoach(db, project.id)).toEqual({ advice: null });
  });

  it('outlives its project: what was handed in is still told', async () => {
    const project = await startExercise(db, 'tray');
    await draw(project.id, shape('fine', TRAY));
    await handIn(db, project.id, { seconds: 1, presses: 1 });
    await db.deleteFrom('projects').where('id', '=', project.id).execute();
    expect((await listExercises(db))[0]).toMatchObject({ tries: 1 });
  });

  it('is measured where its picture lies, and says so where that has gone', async () => {
    const project = await startExercise(db, 'tray');
    await draw(project.id, shape('fine', TRAY));
    const { art } = await getArt(db, project.id);
    const half = [0.5, 0, 0, 0.5, 100, 50] as const;
    const placed: Art = { ...art, pictures: [{ ...art.pictures[0]!, placement: half }], layers: [{ ...art.layers[0]!, children: [shape('half', 'M230 165L570 148L576 260L458 266L463 400L335 406L330 272L236 277Z')] }] }; // prettier-ignore
    const store = async (to: Art): Promise<void> => {
      await db.updateTable('documents').set({ art: await packText(artText(to)) }).where('project_id', '=', project.id).execute(); // prettier-ignore
      forgetDocuments(db, project.id);
    };
    await store(placed);
    expect((await handIn(db, project.id, { seconds: 1, presses: 1 })).score.mean).toBeLessThan(0.01);
    await store({ ...placed, pictures: [], traced: null });
    await expect(handIn(db, project.id, { seconds: 1, presses: 1 })).rejects.toThrow(
      'no longer in the drawing',
    );
  });

  it('is no matter of other projects', async () => {
    const project = await addProject(
      db,
      'Plain',
      (await getArt(db, (await startExercise(db, 'leaf')).id)).art,
    );
    await expect(getPractised(db, project.id)).rejects.toThrow('No exercise is practised');
    await expect(handIn(db, project.id, { seconds: 1, presses: 1 })).rejects.toThrow(
      'No exercise is practised',
    );
    await expect(getAnswer(db, 'nobody')).rejects.toThrow('no such project');
  });
});

describe('an own exercise', () => {
  const finished = async (...shapes: Shape[]): Promise<string> => {
    const { art } = await getArt(db, (await startExercise(db, 'leaf')).id);
    const own: Art = { ...art, layers: [{ ...art.layers[0]!, children: shapes }] };
    return (await addProject(db, 'Done', own, [art.pictures[0]!.source])).id;
  };
  const WORDS = { title: 'My leaf', minutes: 4, todo: ['Draw the leaf.'] };

  it('has the finished drawing as its truth, nothing drawn, and stands among the others until its projects have gone', async () => {
    const from = await finished(shape('leaf', TRAY, { fill: { hex: '#2f6b4f' } }));
    const made = await makeExercise(db, from, WORDS);
    expect(made).toMatchObject({ name: 'My leaf', practised: 'My leaf', shapes: 0 });
    await draw(made.id, shape('mine', moved(TRAY, 2), { fill: { hex: '#2f6b4f' } }));
    const { score } = await handIn(db, made.id, { seconds: 10, presses: 9 });
    expect(score.shapes).toMatchObject([{ name: 'leaf', deltaE: 0 }]);
    expect(score.mean).toBeGreaterThan(0.5);
    const listed = (await listExercises(db)).at(-1)!;
    expect(listed).toMatchObject({ title: 'My leaf', from: made.id, tries: 1 });
    const again = await practiseAgain(db, made.id);
    expect((await getPractised(db, again.id)).exercise.title).toBe('My leaf');
    await deleteProject(db, made.id);
    expect((await listExercises(db)).at(-1)).toMatchObject({ title: 'My leaf', from: again.id });
    await deleteProject(db, again.id);
    expect((await listExercises(db)).some(({ title }) => title === 'My leaf')).toBe(false);
  });

  it('is refused, and nothing made, where there is no closed truth or no picture', async () => {
    const before = async (): Promise<number> => (await listProjects(db)).length;
    const open = await finished(shape('open', 'M0 0L90 0L90 90', { fill: { hex: '#2f6b4f' } }));
    const empty = await finished();
    const none = await addProject(db, 'No picture', { ...(await getArt(db, empty)).art, pictures: [], traced: null }); // prettier-ignore
    const count = await before();
    await expect(makeExercise(db, open, WORDS)).rejects.toThrow('a closed shape');
    await expect(makeExercise(db, empty, WORDS)).rejects.toThrow('needs a finished drawing');
    await expect(makeExercise(db, none.id, WORDS)).rejects.toThrow('needs a picture');
    expect(await before()).toBe(count);
    expect((await getProject(db, open)).practised).toBeNull();
  });
});
