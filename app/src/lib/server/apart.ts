import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import pLimit from 'p-limit';
import type { SvgReading } from '@mirrot/core';
import type { BundleWork } from './apart/bundle';
import type { CutoutWork } from './apart/cut-out';
import type { Art, Bundle, LineWork, OutputRange, PlotWish } from '@mirrot/core';
import type { GrowthWork } from './apart/growth';
import type { ProofWork, Proved } from './apart/proof';
import type { LinesAnswer, LinesWork } from './apart/lines';
import type { DrawingAnswer, DrawingWork } from './apart/read-drawing';
import type { StraightenWork } from './apart/straighten';
import { Refusal } from './refusal';

// Work that would hold up everyone else runs apart from the server: in a process that can be killed, or in a thread.

/** Folder of the scripts that run apart, built beside the server. */
const scripts = (): string => process.env.MIRROT_APART ?? join(process.cwd(), 'app', 'build', 'apart');

/** How long an SVG may take to be drawn, milliseconds; and the process to be ready for it. */
const DRAWING_TIME = 5000;
const STARTING_TIME = 30_000;

/** What became of an SVG: its PNG, or why there is none. */
export type DrawnSvg = { readonly png: Buffer } | { readonly failed: 'too-slow' | 'too-large' | 'broken' };

/** Draws an SVG in a process that is killed when it takes over five seconds. */
export const drawSvg = (svg: Uint8Array): Promise<DrawnSvg> =>
  new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [join(scripts(), 'draw-svg.js')], {
      stdio: ['pipe', 'pipe', 'ignore', 'ipc'],
    });
    let tooSlow = false;
    const kill = (): void => {
      tooSlow = true;
      child.kill('SIGKILL');
    };
    let timer = setTimeout(kill, STARTING_TIME);
    child.once('message', () => {
      clearTimeout(timer);
      timer = setTimeout(kill, DRAWING_TIME);
    });
    const parts: Buffer[] = [];
    child.stdout!.on('data', (part: Buffer) => parts.push(part));
    child.once('error', reject);
    child.once('close', (code) => {
      clearTimeout(timer);
      if (tooSlow) resolve({ failed: 'too-slow' });
      else if (code === 0) resolve({ png: Buffer.concat(parts) });
      else resolve({ failed: code === 3 ? 'too-large' : 'broken' });
    });
    // A child that ends before it has read everything is no error of ours.
    child.stdin!.on('error', () => {});
    child.stdin!.end(svg);
  });

/** Straightened at a time. */
const straightening = pLimit(2);

/** Has a thread of its own work something out. */
const workedOut = <T>(script: string, work: unknown, tooLarge: string): Promise<T> =>
  new Promise<T>((resolve, reject) => {
    const worker = new Worker(join(scripts(), script), { workerData: work });
    worker.once('message', resolve);
    worker.once('error', (error) =>
      reject(
        (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY'
          ? new Refusal(413, 'too-many-pixels', tooLarge)
          : error,
      ),
    );
    worker.once('exit', (code) => reject(new Error(`${script} ended with ${code}.`)));
  });
const pngFrom = async (script: string, work: unknown, tooLarge: string): Promise<Buffer> =>
  Buffer.from(await workedOut<Uint8Array>(script, work, tooLarge));

/** Sees a picture straight on in a thread of its own; gives a PNG. */
export const straighten = (work: StraightenWork): Promise<Buffer> =>
  straightening(() =>
    pngFrom('straighten.js', work, 'The picture is too large to be seen straight on here.'),
  );

/** Cutouts put together at a time. */
const cutting = pLimit(1);

/** Puts a cutout together in a thread of its own; gives a PNG. */
export const cutOutApart = (work: CutoutWork): Promise<Buffer> =>
  cutting(() => pngFrom('cut-out.js', work, 'The cutout is too large to be written here.'));

/** Drawings made ready for pen and knife at a time. */
const lining = pLimit(1);

/** What a thread answers that may refuse what it is asked. */
type Refusing = { readonly refused: { readonly code: string; readonly message: string } };

/** The answer of a thread; throws what it refuses. */
async function answered<T extends object>(script: string, work: unknown, tooLarge: string): Promise<T> {
  const answer = await workedOut<T | Refusing>(script, work, tooLarge);
  if ('refused' in answer) throw new Refusal(422, answer.refused.code, answer.refused.message);
  return answer;
}

const linesApart = <T extends LinesAnswer>(work: LinesWork): Promise<T> =>
  lining(() => answered<T>('lines.js', work, 'The drawing is too large to be made ready here.'));

/** A drawing as HP-GL, in a thread of its own. */
export const plotApart = async (art: Art, wish: PlotWish): Promise<string> =>
  (await linesApart<{ text: string }>({ kind: 'plot', art, wish })).text;

/** A drawing as hairlines, its sheet what is written, in a thread of its own. */
export const linedApart = async (art: Art, range: OutputRange, lines: LineWork): Promise<Art> =>
  (await linesApart<{ art: Art }>({ kind: 'lines', art, range, lines })).art;

/** Bundles packed or taken apart at a time. */
const bundling = pLimit(1);

/** A project as a bundle, packed in a thread of its own. */
export const writeBundleApart = async (bundle: Bundle): Promise<Uint8Array> =>
  (await bundling(() => answered<{ bytes: Uint8Array }>('bundle.js', { kind: 'write', bundle } satisfies BundleWork, 'The project is too large to be packed here.'))).bytes; // prettier-ignore

/** Several files as one zip file, packed in a thread of its own. */
export const zipApart = async (files: Extract<BundleWork, { kind: 'zip' }>['files']): Promise<Uint8Array> =>
  (await bundling(() => answered<{ bytes: Uint8Array }>('bundle.js', { kind: 'zip', files } satisfies BundleWork, 'These files are too large to be packed here.'))).bytes; // prettier-ignore

/** The projects of a bundle, taken apart in a thread of its own. Refuses what is none. */
export const readBundlesApart = async (bytes: Uint8Array): Promise<readonly Bundle[]> =>
  (await bundling(() => answered<{ bundles: readonly Bundle[] }>('bundle.js', { kind: 'read', bytes } satisfies BundleWork, 'The bundle is too large to be taken apart here. Nothing was added.'))).bundles; // prettier-ignore

/** Drawings proved at a time. */
const proving = pLimit(1);

/** Proves a drawing in a thread of its own. */
export const proveApart = (work: ProofWork): Promise<Proved> =>
  proving(() => workedOut<Proved>('proof.js', work, 'This drawing is too large to be proved here.'));

/** Growths told at a time. */
const growing = pLimit(1);

/** Tells how a drawing grew, or makes moving pictures of it, in a thread of its own. */
export const growthApart = async (work: GrowthWork): Promise<Uint8Array> =>
  (await growing(() => answered<{ bytes: Uint8Array }>('growth.js', work, 'This drawing grew too large to be replayed here.'))).bytes; // prettier-ignore

/** Drawings read at a time, and how long one may take, milliseconds. */
const reading = pLimit(1);
const READING_TIME = 30_000;
/** Memory that reading a drawing may take, MB. */
const READING_MEMORY = 1500;

const notRead = (message: string): Refusal => new Refusal(422, 'drawing', `${message} Nothing was added.`);

/** Reads an SVG or DXF as a drawing, in a thread that is ended when it takes over half a minute. */
export const readDrawingApart = (work: DrawingWork): Promise<SvgReading> =>
  reading(
    () =>
      new Promise<SvgReading>((resolve, reject) => {
        const worker = new Worker(join(scripts(), 'read-drawing.js'), {
          workerData: work,
          resourceLimits: { maxOldGenerationSizeMb: READING_MEMORY },
        });
        const timer = setTimeout(() => {
          reject(notRead('This drawing takes over half a minute to read.'));
          void worker.terminate();
        }, READING_TIME);
        worker.once('message', (answer: DrawingAnswer) => {
          if (!('refused' in answer)) return resolve(answer);
          reject(new Refusal(422, answer.refused.code, answer.refused.message));
        });
        worker.once('error', (error) =>
          reject(
            (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY'
              ? notRead('This drawing is too large to be read here.')
              : error,
          ),
        );
        worker.once('exit', (code) => {
          clearTimeout(timer);
          reject(new Error(`Reading a drawing ended with ${code}.`));
        });
      }),
  );
