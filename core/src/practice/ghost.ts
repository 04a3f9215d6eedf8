import { followGrowth, type Growth } from '../art/growth';
import { formatPathData } from '../path/data';
import { workIn, type KeptAttempt } from './attempt';
import { drawnShapes } from './score';

/** What had been drawn of an attempt at a moment of its work. */
export interface GhostFrame {
  /** Seconds of work until then. */
  readonly seconds: number;
  /** Pixels of the picture: SVG path data. */
  readonly lines: string;
  readonly anchors: number;
}

/** Moments of a ghost, at most. */
const MOST_FRAMES = 240;

/**
 * An attempt as it grew, to race against: its lines at moments of its work, the last when it was handed in. Between two changes
 * so much time is work as counts when it is drawn (`workIn`); the whole takes as long as was counted then.
 *
 * @param growth of the project that it was drawn in
 * @param startedAt when that was begun; ISO 8601
 * @param picture id of the picture that the exercise is done on
 * @returns a frame or more, their seconds rising; the finished lines alone, from the start, where nothing is known of the way there
 * @throws MirrotError `change` where a change does not fit what was there
 */
export function ghostOf(
  growth: Growth,
  startedAt: string,
  picture: string,
  { createdAt, revision, seconds, lines, score }: KeptAttempt,
): GhostFrame[] {
  const until = Date.parse(createdAt);
  const changes = growth.changes.filter((c) =>
    revision === null ? Date.parse(c.at) <= until : c.revision <= revision,
  );
  const grown = followGrowth({ beginning: growth.beginning, changes });
  let [work, before] = [0, Date.parse(startedAt)];
  const upTo = [...changes.map(({ at }) => Date.parse(at)), until].map((now) => {
    work += workIn((now - before) / 1000);
    before = now;
    return work;
  });
  const scale = work > 0 ? seconds / work : 0;
  const frames: GhostFrame[] = [];
  const count = Math.min(changes.length, MOST_FRAMES);
  for (let k = 1; k <= count; k++) {
    const n = Math.round((k * changes.length) / count);
    const art = grown.artAt(n);
    const placed = art.pictures.find(({ id }) => id === picture);
    if (!placed) continue;
    const paths = drawnShapes(art, placed).flatMap((shape) => shape.paths);
    const drawn = formatPathData(paths);
    if (drawn === (frames.at(-1)?.lines ?? '')) continue;
    const anchors = paths.reduce((sum, path) => sum + path.anchors.length, 0);
    frames.push({ seconds: scale * upTo[n - 1]!, lines: drawn, anchors });
  }
  // What was handed in is what it ends with, whatever the journal tells.
  if (frames.at(-1)?.lines !== lines)
    frames.push({ seconds: frames.length > 0 ? seconds : 0, lines, anchors: score.anchors });
  return frames;
}
