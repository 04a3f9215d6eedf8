import { expect, it } from 'vitest';
import { halved } from './halve';

it('is the mean of four pixels by opacity, and never nothing', () => {
  const raster = (width: number, height: number, ...pixels: number[][]) => ({ width, height, data: Uint8Array.from(pixels.flat()) }); // prettier-ignore
  const [red, blue, clear] = [[200, 0, 0, 255], [0, 0, 100, 255], [9, 9, 9, 0]]; // prettier-ignore
  expect([...halved(raster(2, 2, red!, blue!, red!, blue!)).data]).toEqual([100, 0, 50, 255]);
  // Clear pixels lend no colour.
  expect([...halved(raster(2, 2, red!, clear!, red!, clear!)).data]).toEqual([200, 0, 0, 128]);
  expect([...halved(raster(2, 2, clear!, clear!, clear!, clear!)).data].at(-1)).toBe(0);
  expect(halved(raster(3, 3, ...Array.from({ length: 9 }, () => red!)))).toMatchObject({
    width: 1,
    height: 1,
  });
  expect([...halved(raster(1, 1, red!)).data]).toEqual(red);
});
