// A process of its own: draws the SVG that comes in, writes a PNG, and is killed by its parent should it take too long.
import sharp from 'sharp';
import { MOST_PIXELS } from '../../limits';

/** Longest side, in pixels, that a picture without pixels of its own is drawn at. */
const DRAWN_LONGEST = 2048;
/** Exit codes by which the parent tells what went wrong. */
const [TOO_LARGE, BROKEN] = [3, 4];

async function draw(svg: Buffer): Promise<Buffer> {
  const { format, width, height } = await sharp(svg, { limitInputPixels: MOST_PIXELS }).metadata();
  if (format !== 'svg') throw new Error('not an SVG');
  const density = Math.min(2400, Math.max(1, (72 * DRAWN_LONGEST) / Math.max(width, height)));
  return sharp(svg, { limitInputPixels: MOST_PIXELS, failOn: 'truncated', density })
    .toColourspace('srgb')
    .png({ compressionLevel: 4 })
    .toBuffer();
}

const parts: Buffer[] = [];
process.stdin.on('data', (part: Buffer) => parts.push(part));
process.stdin.on('end', () => {
  draw(Buffer.concat(parts)).then(
    (png) => process.stdout.write(png, () => process.exit(0)),
    (error: unknown) => {
      process.stderr.write(String(error));
      process.exit(/pixel limit/i.test(String(error)) ? TOO_LARGE : BROKEN);
    },
  );
});
// The parent's patience begins when drawing can.
process.send?.('ready');
