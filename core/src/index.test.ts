import { describe, expect, it } from 'vitest';
import * as root from '@mirrot/core';
import * as art from '@mirrot/core/art';
import * as colour from '@mirrot/core/colour';
import * as formats from '@mirrot/core/formats';
import * as geometry from '@mirrot/core/geometry';
import * as path from '@mirrot/core/path';
import * as picture from '@mirrot/core/picture';
import * as plot from '@mirrot/core/plot';
import * as practice from '@mirrot/core/practice';
import * as proof from '@mirrot/core/proof';
import * as trace from '@mirrot/core/trace';

describe('the public face', () => {
  const rooms = { art, colour, formats, geometry, path, picture, plot, practice, proof, trace };

  it('has each name of every room at the root too, once', () => {
    const names = Object.values(rooms).flatMap((room) => Object.keys(room));
    expect(names.length).toBe(new Set(names).size);
    expect(Object.keys(root).sort()).toEqual([...names, 'MirrotError', 'seeded'].sort());
  });

  it('has the names that the house has fixed, where the house says', () => {
    const FIXED = {
      path: ['parsePathData', 'formatPathData', 'pathBounds', 'pathLength', 'pathArea', 'nearestOnPath', 'insertAnchor', 'removeAnchors', 'pullSegment', 'setAnchorKind', 'flowAll', 'fitPath', 'thinOut', 'spareAnchors', 'joinEnds', 'combine', 'splitUp', 'enclosedAreas', 'widen', 'strokeToShape', 'mirrorPath'], // prettier-ignore
      trace: ['edgeField', 'measureDrift', 'settle', 'measureWeight'],
      picture: ['sampleDisc', 'toneSteps'],
      geometry: ['squareUp'],
      colour: ['deltaE2000'],
      formats: ['writeSvg', 'readSvg', 'writeDxf', 'writeHpgl'],
      plot: ['planPlot'],
      proof: ['findings'],
      art: ['artSchema'],
    };
    for (const [room, names] of Object.entries(FIXED))
      for (const name of names) expect(rooms[room as keyof typeof rooms], name).toHaveProperty(name);
  });
});
