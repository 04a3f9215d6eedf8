import { seenSize, squareMap, warpRaster, homography, type PlacedPicture } from '@mirrot/core';
import sharp from 'sharp';
import type { Database } from './database';
import type { Rendition, Size } from './decode';
import { pictureRendition } from './pictures';

/** A picture's pixels as they are seen: straightened when it is squared up. Views to see by and Wash are for the desk. */
export async function seenRendition(db: Database, picture: PlacedPicture, size: Size): Promise<Rendition> {
  const own = await pictureRendition(db, picture.source, size);
  if (!picture.square || !squareMap(picture)) return own;
  const { data, info } = await sharp(own.bytes, { limitInputPixels: false })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const k = info.width / picture.width;
  const seen = seenSize(picture);
  const width = Math.max(1, Math.round(seen.width * k));
  const height = Math.max(1, Math.round(seen.height * k));
  const map = homography(
    picture.square.corners.map((p) => ({ x: p.x * k, y: p.y * k })),
    [
      { x: 0, y: 0 },
      { x: width, y: 0 },
      { x: width, y: height },
      { x: 0, y: height },
    ],
  );
  const straight = warpRaster({ width: info.width, height: info.height, data }, map, width, height);
  const bytes = await sharp(Buffer.from(straight.data.buffer), { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();
  return { size, type: 'image/png', bytes };
}
