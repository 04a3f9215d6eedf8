import { crowdedProject, ask, finding, getArt, makeProject, newFolder, nudge, pause, post, quantile, removeFolder, start, usage, type Finding } from './harness'; // prettier-ignore
import { statSync } from 'node:fs';
import { join } from 'node:path';
import { seeded } from '@mirrot/core';

/** Changes a second, and the memory that a server may gain while they come, bytes. */
const A_SECOND = 20;
const MAY_GAIN = 80e6;

/**
 * Small changes on a drawing of so many shapes of twelve anchors, twenty a second for so long, while the server's health
 * is asked for; then it is opened cold.
 */
export async function soak(shapes: number, seconds: number): Promise<Finding[]> {
  const random = seeded(shapes);
  const data = newFolder();
  let server = await start(data);
  const { id, revision: first } = await crowdedProject(server.address, shapes);
  await getArt(server.address, id);
  // Everything is warm, and what is stored at rest is stored.
  let revision = first;
  const change = async (): Promise<number> => {
    const { patches, note } = nudge(Math.floor(random() * shapes), random() * 100);
    const began = performance.now();
    const answer = await post(server.address, `/api/projects/${id}/changes`, { base: revision, changes: [patches], notes: [note] }); // prettier-ignore
    if (answer?.status === 200) revision = (answer.json() as { revision: number }).revision;
    return answer?.status === 200 ? performance.now() - began : NaN;
  };
  for (let k = 0; k < 40; k++) await change();
  await pause(6000);
  const health: number[] = [];
  /** Asks for the server's health for so long; gives how often. */
  const watch = async (time: number): Promise<number> => {
    const until = Date.now() + time;
    let asked = 0;
    for (; Date.now() < until; asked++) {
      const at = performance.now();
      await ask(server.address, '/api/health');
      health.push(performance.now() - at);
      await pause(50);
    }
    return asked;
  };
  // What being watched costs by itself is not the changes' cost.
  const alone = usage(server);
  const watches = await watch(Math.min(5000, seconds * 1000));
  const before = usage(server);
  const watchCost = (before.cpu - alone.cpu) / watches;
  health.length = 0;
  const took: number[] = [];
  let missed = 0;
  let settledMemory = 0;
  const began = Date.now();
  const watching = watch(seconds * 1000);
  for (let k = 0; k < seconds * A_SECOND; k++) {
    const due = began + (k * 1000) / A_SECOND;
    if (due > Date.now()) await pause(due - Date.now());
    const time = await change();
    if (Number.isNaN(time)) missed++;
    else took.push(time);
    if (k === Math.floor((seconds * A_SECOND) / 4)) settledMemory = usage(server).memory;
  }
  await watching;
  const late = Date.now() - began - seconds * 1000;
  const after = usage(server);
  const each = took.length;
  const cpu = ((after.cpu - before.cpu - watchCost * health.length) * 1000) / each;
  const written = (after.written - before.written) / each;
  await server.stop();
  server = await start(data);
  const opening = performance.now();
  const opened = await ask(server.address, `/api/projects/${id}/art`);
  const cold = performance.now() - opening;
  const { revision: now } = opened!.json() as { revision: number };
  await server.stop();
  removeFolder(data);
  const ms = (v: number): string => `${v.toFixed(1)} ms`;
  return [
    finding(`Soak (${shapes} shapes, ${A_SECOND} a second for ${seconds} s): changes not done`, missed + (now === revision ? 0 : 1), '0', missed === 0 && now === revision), // prettier-ignore
    finding('… behind at the end', `${late} ms`, '≤ 1000 ms', late <= 1000),
    finding('… a change, there and back, median', ms(quantile(took, 0.5)), 'told', true),
    finding('… processor for a change', ms(cpu), '≤ 5 ms', cpu <= 5),
    finding('… written for a change', `${(written / 1000).toFixed(1)} kB`, '≤ 20 kB', written <= 20_000),
    finding('… health, 95 %', ms(quantile(health, 0.95)), '≤ 20 ms', quantile(health, 0.95) <= 20),
    finding('… memory gained in the last three quarters', `${((after.memory - settledMemory) / 1e6).toFixed(0)} MB`, `≤ ${MAY_GAIN / 1e6} MB`, after.memory - settledMemory <= MAY_GAIN), // prettier-ignore
    finding('… opened cold', ms(cold), '≤ 500 ms', cold <= 500),
  ];
}

/** The size of a database after so many ordinary changes on 500 shapes. */
export async function journalSize(changes: number): Promise<Finding[]> {
  const random = seeded(changes);
  const data = newFolder();
  const server = await start(data);
  const shapes = 500;
  const { id, revision } = await crowdedProject(server.address, shapes);
  for (let k = 0; k < changes; k += 50) {
    const made = Array.from({ length: Math.min(50, changes - k) }, () => nudge(Math.floor(random() * shapes), random() * 100)); // prettier-ignore
    const answer = await post(server.address, `/api/projects/${id}/changes`, { base: revision + k, changes: made.map((m) => m.patches), notes: made.map((m) => m.note) }); // prettier-ignore
    if (answer?.status !== 200) throw new Error(answer?.text);
  }
  await server.stop();
  const size = statSync(join(data, 'mirrot.sqlite')).size;
  removeFolder(data);
  const wanted = (30e6 * changes) / 10_000 + 2e6;
  return [finding(`Database after ${changes} changes on ${shapes} shapes`, `${(size / 1e6).toFixed(1)} MB`, `≤ ${(wanted / 1e6).toFixed(0)} MB`, size <= wanted)]; // prettier-ignore
}

/** How long the shelf takes to be told, and its cards' pictures, with so many projects. */
export async function shelf(projects: number, thumbs: number): Promise<Finding[]> {
  const data = newFolder();
  const server = await start(data);
  const ids: string[] = [];
  for (let k = 0; k < projects; k++) ids.push(await makeProject(server.address, `Project ${k}`));
  await ask(server.address, '/api/projects');
  const times: number[] = [];
  for (let k = 0; k < 5; k++) {
    const began = performance.now();
    await ask(server.address, '/api/projects');
    times.push(performance.now() - began);
  }
  const drawn = ids.slice(0, thumbs);
  for (const id of drawn) await ask(server.address, `/api/projects/${id}/thumb`);
  const began = performance.now();
  for (let k = 0; k < drawn.length; k += 6)
    await Promise.all(drawn.slice(k, k + 6).map((id) => ask(server.address, `/api/projects/${id}/thumb`)));
  const all = performance.now() - began;
  await server.stop();
  removeFolder(data);
  return [
    finding(`${projects} projects listed`, `${quantile(times, 0.5).toFixed(1)} ms`, '≤ 50 ms', quantile(times, 0.5) <= 50), // prettier-ignore
    finding(`${drawn.length} thumbs`, `${all.toFixed(0)} ms`, '≤ 2000 ms', all <= 2000),
  ];
}
