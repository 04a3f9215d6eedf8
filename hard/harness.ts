import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { emptyArt, seeded, type Art, type Path, type Patch, type Shape } from '@mirrot/core';
import { freePort, startServer, type StartedServer } from '../scripts/ready.mjs';

// What the hard tests share: servers that are started and killed, and a client that knows what it was told.

/** One line of the table: what was measured, what it is, what it may be, whether it holds. */
export interface Finding {
  readonly what: string;
  readonly found: string;
  readonly wanted: string;
  readonly holds: boolean;
}

export const finding = (what: string, found: string | number, wanted: string, holds: boolean): Finding => ({
  what,
  found: String(found),
  wanted,
  holds,
});

export const newFolder = (): string => mkdtempSync(join(tmpdir(), 'mirrot-hard-'));
export const removeFolder = (folder: string): void => rmSync(folder, { recursive: true, force: true });
export const pause = (time: number): Promise<void> => new Promise((done) => setTimeout(done, time));

export const start = async (data: string, env: Record<string, string> = {}): Promise<StartedServer> =>
  startServer({ port: await freePort(), data, quiet: true, env });

/** Kills a server as a power cut would, and waits until it is gone. */
export async function kill(server: StartedServer): Promise<void> {
  server.process.kill('SIGKILL');
  await server.ended;
}

export interface Answer {
  readonly status: number;
  readonly type: string;
  readonly text: string;
  readonly json: () => unknown;
}

/** Asks, and gives what was answered; null when nothing was, as when the server is killed meanwhile. */
export async function ask(address: string, path: string, init: RequestInit = {}): Promise<Answer | null> {
  try {
    const answer = await fetch(address + path, init);
    const text = await answer.text();
    return { status: answer.status, type: answer.headers.get('content-type') ?? '', text, json: () => JSON.parse(text) as unknown }; // prettier-ignore
  } catch {
    return null;
  }
}

export const post = (address: string, path: string, body: unknown): Promise<Answer | null> =>
  ask(address, path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });

export async function makeProject(address: string, name = 'Hard'): Promise<string> {
  const made = await post(address, '/api/projects', { name, sheet: { width: 800, height: 600, unit: 'px' } });
  return (made!.json() as { id: string }).id;
}

export const getArt = async (address: string, id: string): Promise<{ revision: number; art: Art }> =>
  (await ask(address, `/api/projects/${id}/art`))!.json() as { revision: number; art: Art };

/** A blob of so many anchors. */
export function blob(id: string, x: number, y: number, anchors = 12): Path {
  return {
    id,
    closed: true,
    anchors: Array.from({ length: anchors }, (_, k) => {
      const a = (2 * Math.PI * k) / anchors;
      const [c, s] = [Math.cos(a), Math.sin(a)];
      const at = { x: Number((x + 8 * c).toFixed(3)), y: Number((y + 8 * s).toFixed(3)) };
      const handle = { x: Number((-1.5 * s).toFixed(3)), y: Number((1.5 * c).toFixed(3)) };
      return { ...at, kind: 'smooth', in: { x: -handle.x, y: -handle.y }, out: handle };
    }),
  };
}

export const shape = (id: string, x: number, y: number): Shape => ({
  id,
  type: 'shape',
  name: `Shape ${id}`,
  shown: true,
  locked: false,
  opacity: 1,
  fill: { hex: '#2f6b4f' },
  stroke: null,
  paths: [blob(`${id}-p`, x, y)],
});

/** Makes a project of so many shapes of twelve anchors; gives its id and revision. */
export async function crowdedProject(
  address: string,
  shapes: number,
): Promise<{ id: string; revision: number }> {
  const id = await makeProject(address);
  const random = seeded(shapes);
  let revision = 0;
  for (let from = 0; from < shapes; from += 500) {
    const patches: Patch[] = Array.from({ length: Math.min(500, shapes - from) }, (_, k) => ({
      op: 'add',
      path: '/layers/0/children/-',
      value: shape(`s${from + k}`, random() * 800, random() * 600),
    }));
    const answer = await post(address, `/api/projects/${id}/changes`, { base: revision, changes: [patches] });
    if (answer?.status !== 200) throw new Error(`The crowd was not taken: ${answer?.text}`);
    revision++;
  }
  return { id, revision };
}

const looked = {
  choice: { level: 'shape', shapes: [], anchors: [], handle: null, segment: null },
  live: null,
};

/** An ordinary small change: one shape of the first layer moved, with its way back, as the desk sends it. */
export function nudge(index: number, by: number, anchors = 12): { patches: Patch[]; note: unknown } {
  const at = (k: number): string => `/layers/0/children/${index}/paths/0/anchors/${k}`;
  const move = (x: number): Patch[] =>
    Array.from({ length: anchors }, (_, k) => ({ op: 'replace', path: `${at(k)}/x`, value: Number((400 + x + k).toFixed(3)) })); // prettier-ignore
  const note = { did: 'step', label: 'Move the shape', inverse: move(0), before: looked, after: looked };
  return { patches: move(by), note };
}

/** Seconds of processor a process has used, its memory in bytes, and the bytes it has had written. Source: proc(5). */
export function usage(server: StartedServer): { memory: number; written: number; cpu: number } {
  const pid = server.process.pid!;
  const status = readFileSync(`/proc/${pid}/status`, 'utf8');
  const io = readFileSync(`/proc/${pid}/io`, 'utf8');
  const stat = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
  return {
    memory: 1024 * Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? NaN),
    written: Number(/write_bytes: (\d+)/.exec(io)?.[1] ?? NaN),
    // Clock ticks are hundredths of a second.
    cpu: (Number(stat[11]) + Number(stat[12])) / 100,
  };
}

export const quantile = (values: readonly number[], q: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))] ?? NaN;
};

export const bare = emptyArt({ width: 800, height: 600, unit: 'px' }, 'layer');
