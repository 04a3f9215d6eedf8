import { fromLinear, toLinear, type Rgb } from './srgb';

type Row = readonly [number, number, number];

/**
 * What eyes without one kind of cone see, as maps of linear sRGB.
 * Source: Machado, Oliveira and Fernandes, "A physiologically-based model for simulation of color vision deficiency", IEEE
 * Transactions on Visualization and Computer Graphics 15 (2009), table of severity 1.0; from memory, checked against culori.
 */
const MAPS: Readonly<Record<'protanopia' | 'deuteranopia' | 'tritanopia', readonly [Row, Row, Row]>> = {
  protanopia: [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  deuteranopia: [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
  tritanopia: [
    [1.255528, -0.076749, -0.178779],
    [-0.078411, 0.930809, 0.147602],
    [0.004733, 0.691367, 0.3039],
  ],
};

export type Deficiency = keyof typeof MAPS;
export const DEFICIENCIES = Object.keys(MAPS) as readonly Deficiency[];

/** The map of linear sRGB that a deficiency is, row by row: red, green, blue. */
export const deficiencyMap = (deficiency: Deficiency): readonly [Row, Row, Row] => MAPS[deficiency];

/** A colour as eyes with a deficiency see it. Colours are sRGB, 0 to 1. */
export function seenWith(deficiency: Deficiency, colour: Rgb): Rgb {
  const [r, g, b] = colour.map(toLinear) as [number, number, number];
  return MAPS[deficiency].map((row) =>
    fromLinear(Math.min(1, Math.max(0, row[0] * r + row[1] * g + row[2] * b))),
  ) as unknown as Rgb;
}
