import {
  formatPathData,
  linedArt,
  playFile,
  plotFile,
  readHpgl,
  shapesOf,
  transformPath,
  writeBundle,
  writeSvg,
  type Art,
  type PlacedPicture,
} from '@mirrot/core';
import * as Comlink from 'comlink';
import { onSheet } from './on-sheet';
import type { FileWork, LinesMade, LinesWish } from './files';

// Makes files of lines, and plays them, away from the page.

/** A file for a plotter, shown as what a machine reads in it. */
function plotMade(art: Art, { wish }: Extract<LinesWish, { kind: 'plot' }>): LinesMade {
  const plot = plotFile(art, wish);
  const { written, anchors } = plot;
  const at = onSheet(written, wish.range?.scale ?? 1);
  const data = readHpgl(plot.text)
    .strokes.map(({ points, closed }) => {
      const places = points.map(at).map(({ x, y }) => `${x.toFixed(2)} ${y.toFixed(2)}`);
      return `M${places.join('L')}${closed ? 'Z' : ''}`;
    })
    .join('');
  return { data, written, anchors, plot };
}

function curvesMade(art: Art, { range, lines }: Extract<LinesWish, { kind: 'curves' }>): LinesMade {
  const { art: lined, anchors, written } = linedArt(art, range, lines);
  const paths = shapesOf(lined).flatMap(({ shape }) => shape.paths);
  const data = formatPathData(paths.map((path) => transformPath(path, [1, 0, 0, 1, written.x0, written.y0])));
  return { data, written, anchors, plot: null };
}

const work: FileWork = {
  async svg(art, options, hrefs, lines) {
    const pictureHref = (p: PlacedPicture): string => hrefs.get(p.id)!;
    if (!lines) return writeSvg(art, { ...options, pictureHref });
    const { ground, plain, scale } = options;
    return writeSvg(linedArt(art, options, lines).art, { ground, plain, scale });
  },
  bundle: async (bundle) => writeBundle(bundle),
  lines: async (art, wish) => (wish.kind === 'plot' ? plotMade(art, wish) : curvesMade(art, wish)),
  play: async (text, machine) => playFile(text, machine),
};
Comlink.expose(work);
