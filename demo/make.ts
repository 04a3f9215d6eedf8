// npm run demo:make: photographs the vector originals and writes the demo's projects; all, or those named after it.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import type { Raster } from '@mirrot/core';
import { canTagProject } from './can-tag';
import { develop, draw, grain, lens, lookAt, vignette } from './camera';
import {
  fernProject,
  gateBadgeProject,
  glasshouseProject,
  growerProject,
  gourdProject,
  plantLabelsProject,
  seedPacketProject,
  wateringCanProject,
} from './projects';
import { BADGE_CORNERS, BADGE_PHOTO } from './scene';
import { FERN } from './originals/fern';
import { boards, GATE_BADGE } from './originals/gate-badge';
import { GLASSHOUSE } from './originals/glasshouse';
import { GROWER } from './originals/grower';
import { GOURD } from './originals/gourd';
import { SEED_PACKET } from './originals/seed-packet';
import { PLANT_LABELS } from './originals/plant-labels';
import { WATERING_CAN } from './originals/watering-can';

const here = fileURLToPath(new URL('.', import.meta.url));

const asPng = ({ width, height, data }: Raster) =>
  sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), {
    raw: { width, height, channels: 4 },
  }).png();

/** A soft shadow of a shape that is clear round it. */
function shadowOf(raster: Raster): Promise<Buffer> {
  const dark = new Uint8ClampedArray(raster.data);
  for (let i = 0; i < dark.length; i += 4) {
    dark.fill(16, i, i + 3);
    dark[i + 3] = dark[i + 3]! * 0.62;
  }
  return asPng({ ...raster, data: dark })
    .blur(16)
    .toBuffer();
}

async function photographBadge(): Promise<Raster> {
  const { width, height } = BADGE_PHOTO;
  const sign: Raster = lookAt(await draw(GATE_BADGE.photograph()), BADGE_CORNERS, width, height);
  const shadow = await sharp(await shadowOf(sign))
    .extract({ left: 0, top: 0, width: width - 16, height: height - 26 })
    .toBuffer();
  const data = await sharp(await asPng(await draw(boards(width, height), 160)).toBuffer())
    .composite([{ input: shadow, left: 16, top: 26 }, { input: await asPng(sign).toBuffer() }])
    .ensureAlpha()
    .raw()
    .toBuffer();
  return lens({ width, height, data: new Uint8ClampedArray(data) }, 0.7);
}

async function keep(name: string, file: Buffer): Promise<Raster> {
  mkdirSync(join(here, 'pictures'), { recursive: true });
  writeFileSync(join(here, 'pictures', `${name}.jpg`), file);
  const { data, info } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  console.log(`${name}.jpg ${info.width} × ${info.height}, ${Math.round(file.length / 1000)} kB`);
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
}

function keepProject(name: string, project: object): void {
  mkdirSync(join(here, 'projects'), { recursive: true });
  writeFileSync(join(here, 'projects', `${name}.json`), `${JSON.stringify(project)}\n`);
}

/** What is photographed, by the picture's name, and the projects that are drawn on it. */
const MADE: Readonly<Record<string, () => Promise<void>>> = {
  async 'watering-can'() {
    const scene = await lens(await draw(WATERING_CAN.photograph(), 200), 0.5);
    const can = await keep('watering-can', await develop(vignette(grain(scene, 13, 4), 0.35), 84, 300));
    keepProject('watering-can', wateringCanProject(can));
    keepProject('can-tag', canTagProject(can));
  },
  async 'gate-badge'() {
    const scene = await photographBadge();
    const badge = await keep('gate-badge', await develop(vignette(grain(scene, 12, 9), 0.3), 80, 72));
    keepProject('gate-badge', gateBadgeProject(badge));
  },
  async fern() {
    const scene = await draw(FERN.photograph());
    await keep('fern', await develop(vignette(grain(scene, 9, 15), 0.1), 82, 200));
    keepProject('fern', fernProject());
  },
  async 'plant-labels'() {
    await keep('plant-labels', await develop(grain(await draw(PLANT_LABELS.photograph()), 8, 23), 84, 300));
    keepProject('plant-labels', plantLabelsProject());
  },
  async 'seed-packet'() {
    const scene = await draw(SEED_PACKET.photograph());
    await keep('seed-packet', await develop(vignette(grain(scene, 8, 27), 0.15), 82, 300));
    keepProject('seed-packet', seedPacketProject());
  },
  async gourd() {
    const scene = await draw(GOURD.photograph(), 200);
    const gourd = await keep('gourd', await develop(vignette(grain(scene, 12, 31), 0.3), 84, 240));
    keepProject('gourd', gourdProject(gourd));
  },
  async glasshouse() {
    const scene = await lens(await draw(GLASSHOUSE.photograph(), 120), 0.9);
    await keep('glasshouse', await develop(vignette(grain(scene, 11, 41), 0.25), 84, 240));
    keepProject('glasshouse', glasshouseProject());
  },
  async grower() {
    const scene = await draw(GROWER.photograph(), 200);
    await keep('grower', await develop(vignette(grain(scene, 10, 57), 0.25), 84, 300));
    keepProject('grower', growerProject());
  },
};

const wanted = process.argv.slice(2);
const unknown = wanted.filter((name) => !MADE[name]);
if (unknown.length > 0)
  throw new Error(`There is no picture ${unknown.join(', ')}; there are ${Object.keys(MADE).join(', ')}.`);
for (const name of wanted.length > 0 ? wanted : Object.keys(MADE)) await MADE[name]!();
