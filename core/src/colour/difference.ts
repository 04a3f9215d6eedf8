import type { Cielab } from './cielab';

const RAD = Math.PI / 180;

/**
 * CIEDE2000 colour difference, kL = kC = kH = 1. About 1 is just seen side by side.
 * Source: Sharma, Wu and Dalal, "The CIEDE2000 color-difference formula: implementation notes, supplementary
 * test data, and mathematical observations", Color Research and Application 30 (2005).
 */
export function deltaE2000(first: Cielab, second: Cielab): number {
  const [l1, a1, b1] = first;
  const [l2, a2, b2] = second;
  const meanC7 = ((Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2) ** 7;
  const g = 0.5 * (1 - Math.sqrt(meanC7 / (meanC7 + 25 ** 7)));
  const ap1 = (1 + g) * a1;
  const ap2 = (1 + g) * a2;
  const c1 = Math.hypot(ap1, b1);
  const c2 = Math.hypot(ap2, b2);
  const hue = (a: number, b: number): number =>
    a === 0 && b === 0 ? 0 : (Math.atan2(b, a) / RAD + 360) % 360;
  const h1 = hue(ap1, b1);
  const h2 = hue(ap2, b2);
  const grey = c1 * c2 === 0;

  let dh = grey ? 0 : h2 - h1;
  if (dh > 180) dh -= 360;
  else if (dh < -180) dh += 360;
  const dH = 2 * Math.sqrt(c1 * c2) * Math.sin((dh / 2) * RAD);

  const l = (l1 + l2) / 2;
  const c = (c1 + c2) / 2;
  let h = h1 + h2;
  if (!grey) {
    if (Math.abs(h1 - h2) <= 180) h /= 2;
    else h = h < 360 ? (h + 360) / 2 : (h - 360) / 2;
  }
  const t =
    1 -
    0.17 * Math.cos((h - 30) * RAD) +
    0.24 * Math.cos(2 * h * RAD) +
    0.32 * Math.cos((3 * h + 6) * RAD) -
    0.2 * Math.cos((4 * h - 63) * RAD);
  const c7 = c ** 7;
  const turn = -Math.sin(60 * Math.exp(-(((h - 275) / 25) ** 2)) * RAD) * 2 * Math.sqrt(c7 / (c7 + 25 ** 7));
  const l50 = (l - 50) ** 2;
  const dl = (l2 - l1) / (1 + (0.015 * l50) / Math.sqrt(20 + l50));
  const dc = (c2 - c1) / (1 + 0.045 * c);
  const dhh = dH / (1 + 0.015 * c * t);
  return Math.sqrt(dl * dl + dc * dc + dhh * dhh + turn * dc * dhh);
}
