import { MirrotError } from '../../error';
import type { Point } from '../../geometry/vector';
import type { PenStroke } from '../../path/pen-stroke';
import { UNITS_PER_MM } from './write';

/** What a plotter does by a file. */
export interface HpglReading {
  /** What it draws with the pen down, in order. Closed where it ends at its beginning. */
  readonly strokes: readonly PenStroke[];
  /** Commands that this reading does not carry out, each once. */
  readonly left: readonly string[];
}

/** Commands without any effect on what is drawn here: speeds, forces, windows that are the whole sheet, ends of pages. */
const QUIET = new Set(['VS', 'FS', 'IW', 'IP', 'SC', 'PG', 'NP', 'RO', 'DF']);

const numbersOf = (command: string, text: string): number[] => {
  const parts = text.split(/[\s,]+/).filter((part) => part !== '');
  return parts.map((part) => {
    if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(part))
      throw new MirrotError(
        'hpgl',
        `"${part.slice(0, 20)}" after ${command} is no number. Nothing was read.`,
      );
    return Number(part);
  });
};

/**
 * Reads HP-GL as a plotter would: IN, SP, PU, PD, PA, PR. A pen that is down draws from where it is to each place in turn.
 *
 * @throws MirrotError `hpgl` where the text is none, or a number is none
 */
export function readHpgl(text: string): HpglReading {
  const strokes: PenStroke[] = [];
  const left = new Set<string>();
  let [pen, down, relative] = [0, false, false];
  let at: Point = { x: 0, y: 0 };
  let drawn: Point[] = [];
  const lift = (): void => {
    const [first, last] = [drawn[0], drawn.at(-1)];
    if (drawn.length >= 2) {
      const closed = drawn.length > 2 && first!.x === last!.x && first!.y === last!.y;
      const points = closed ? drawn.slice(0, -1) : drawn;
      strokes.push({ pen, closed, points: points.map((p) => ({ x: p.x / UNITS_PER_MM, y: p.y / UNITS_PER_MM })) }); // prettier-ignore
    }
    drawn = [];
  };
  const go = (values: readonly number[], command: string): void => {
    if (values.length % 2 !== 0)
      throw new MirrotError(
        'hpgl',
        `${command} has an odd count of numbers, so a place lacks its y. Nothing was read.`,
      );
    for (let i = 0; i < values.length; i += 2) {
      const [x, y] = [values[i]!, values[i + 1]!];
      at = relative ? { x: at.x + x, y: at.y + y } : { x, y };
      if (down) drawn.push(at);
    }
  };
  const does: Readonly<Record<string, (values: readonly number[]) => void>> = {
    IN() {
      lift();
      [pen, down, relative, at] = [0, false, false, { x: 0, y: 0 }];
    },
    SP(values) {
      lift();
      pen = values[0] ?? 0;
      down = false;
    },
    PU(values) {
      lift();
      down = false;
      go(values, 'PU');
    },
    PD(values) {
      if (!down) drawn = [at];
      down = true;
      go(values, 'PD');
    },
    PA(values) {
      relative = false;
      go(values, 'PA');
    },
    PR(values) {
      relative = true;
      go(values, 'PR');
    },
  };
  const commands = [...text.matchAll(/([A-Za-z]{2})([^A-Za-z;]*);?/g)];
  if (!commands.some(([, name]) => Object.hasOwn(does, name!.toUpperCase())))
    throw new MirrotError('hpgl', 'This is no HP-GL: it moves no pen. Nothing was read.');
  for (const [, name, rest] of commands) {
    const command = name!.toUpperCase();
    if (Object.hasOwn(does, command)) does[command]!(numbersOf(command, rest!));
    else if (!QUIET.has(command)) left.add(command);
  }
  lift();
  return { strokes, left: [...left] };
}
