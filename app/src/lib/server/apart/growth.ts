// A thread of its own: tells how a drawing grew, and makes moving pictures of it, which takes seconds for long journals.
import { parentPort, workerData } from 'node:worker_threads';
import { inflateRawSync } from 'node:zlib';
import {
  emptyArt,
  followGrowth,
  ghostOf,
  withTracedLines,
  writeSvg,
  type Art,
  type Growth,
  type KeptAttempt,
} from '@mirrot/core';
import sharp, { type Sharp } from 'sharp';

/** A row of the journal. */
export interface GrowthRow {
  readonly revision: number;
  readonly version: number;
  readonly at: string;
  /** Its patches among other things: JSON, deflated. */
  readonly entry: Uint8Array;
}

export interface FilmWish {
  readonly kind: 'webp' | 'gif';
  /** Pixels across; the height follows from the sheet. */
  readonly width: number;
  readonly seconds: number;
  /** Pixels of the pictures in it, as addresses that hold them, by the pictures' ids. */
  readonly hrefs: ReadonlyMap<string, string>;
  /** The traced pictures lie beneath. */
  readonly picture: boolean;
}

/** An attempt at an exercise, to be told as it grew. */
export interface GhostWish {
  readonly kind: 'ghost';
  /** When its project was begun; ISO 8601. */
  readonly startedAt: string;
  /** Id of the picture that it was done on. */
  readonly picture: string;
  readonly attempt: KeptAttempt;
}

export interface GrowthWork {
  /** The document it began as: JSON. */
  readonly beginning: string;
  readonly rows: readonly GrowthRow[];
  /** The revision of the beginning. */
  readonly revision: number;
  /** Null: all of it is told as JSON. */
  readonly wish: FilmWish | GhostWish | null;
}

export type GrowthAnswer =
  { readonly bytes: Uint8Array } | { readonly refused: { readonly code: string; readonly message: string } };

/** Frames a second, frames in all, and pixels of all of them. */
const MOST_A_SECOND = 12;
const MOST_FRAMES = 150;
const MOST_PIXELS = 60_000_000;
/** The finished drawing stays for so long, milliseconds. */
const LAST_MS = 1800;
const PAPER = '#fffdf8';

const work = workerData as GrowthWork;

const changesOf = (): Growth['changes'] =>
  work.rows.map(({ revision, version, at, entry }) => {
    const { patches } = JSON.parse(inflateRawSync(entry).toString()) as Pick<Growth['changes'][number], 'patches'>; // prettier-ignore
    return { revision, version, at, patches };
  });

function tell(): Uint8Array {
  const changes = JSON.stringify(changesOf());
  return Buffer.from(`{"revision":${work.revision},"beginning":${work.beginning},"changes":${changes}}`);
}

const growth = (): Growth => ({ beginning: JSON.parse(work.beginning), changes: changesOf() });

const ghost = ({ startedAt, picture, attempt }: GhostWish): Uint8Array =>
  Buffer.from(JSON.stringify(ghostOf(growth(), startedAt, picture, attempt)));

async function film({ kind, width, seconds, hrefs, picture }: FilmWish): Promise<Uint8Array> {
  const grown = followGrowth(growth());
  const last = grown.artAt(grown.count);
  const height = Math.max(1, Math.round((width * last.sheet.height) / last.sheet.width));
  const most = Math.floor(Math.min(MOST_FRAMES, seconds * MOST_A_SECOND, MOST_PIXELS / (width * height)));
  const count = Math.max(1, Math.min(grown.count + 1, most));
  const pictureHref = ({ id }: { readonly id: string }): string => hrefs.get(id) ?? 'data:,';
  const drawn = (svg: string): Sharp => sharp(Buffer.from(svg), { limitInputPixels: false, unlimited: true }).resize(width, height, { fit: 'fill' }); // prettier-ignore
  const bare: Art = { ...last, layers: emptyArt(last.sheet, 'layer').layers };
  const ground = last.sheet.ground ?? PAPER;
  const beneath = await drawn(writeSvg(bare, { area: 'sheet', ground, pictures: picture, pictureHref })).flatten({ background: ground }).png().toBuffer(); // prettier-ignore
  const frames: Buffer[] = [];
  for (let k = 0; k < count; k++) {
    // The last one is the finished drawing.
    const n = count === 1 ? grown.count : Math.round((k * grown.count) / (count - 1));
    const art = { ...withTracedLines(grown.artAt(n)), sheet: last.sheet };
    const over = await drawn(writeSvg(art, { area: 'sheet', ground: null, pictureHref }))
      .png()
      .toBuffer();
    frames.push(
      await sharp(beneath)
        .composite([{ input: over }])
        .removeAlpha()
        .png()
        .toBuffer(),
    );
  }
  const each = count === 1 ? LAST_MS : Math.round((1000 * seconds) / (count - 1));
  const delay = frames.map((_, i) => (i === count - 1 ? LAST_MS : each));
  const joined = sharp(frames, { join: { animated: true }, limitInputPixels: false });
  return kind === 'gif'
    ? joined.gif({ delay, loop: 0 }).toBuffer()
    : joined.webp({ delay, loop: 0, quality: 85 }).toBuffer();
}

let answer: GrowthAnswer;
try {
  const { wish } = work;
  answer = { bytes: !wish ? tell() : wish.kind === 'ghost' ? ghost(wish) : await film(wish) };
} catch (error) {
  const { code = 'growth', message } = error as { code?: string; message: string };
  answer = { refused: { code, message } };
}
parentPort!.postMessage(answer);
