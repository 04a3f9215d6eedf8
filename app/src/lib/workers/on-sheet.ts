import { PX_PER, type Box, type Point } from '@mirrot/core';

/**
 * Where a machine's places lie on the sheet.
 *
 * @param written the part of the sheet that was written, sheet pixels: its lower left corner is where the machine begins
 * @param scale how many times as large it was written
 * @returns from millimetres, y upward, to sheet pixels
 */
export function onSheet({ x0, y1 }: Box, scale: number): (place: Point) => Point {
  const px = PX_PER.mm / scale;
  return ({ x, y }) => ({ x: x0 + x * px, y: y1 - y * px });
}
