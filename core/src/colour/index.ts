export { type Cielab, rgbToCielab } from './cielab';
export {
  type Recolouring,
  suggestColourways,
  swapHues,
  takeHexes,
  turnHues,
  turnLightness,
} from './colourways';
export { contrastRatio } from './contrast';
export { type ReadColour, readColour, readCssColour } from './css';
export { type Dealt, deal } from './deal';
export { DEFICIENCIES, type Deficiency, deficiencyMap, seenWith } from './deficiency';
export { deltaE2000 } from './difference';
export { inGamut, intoGamut, MOST_CHROMA, mostChroma } from './gamut';
export { firstMiddles, type Middles, settleMiddles } from './middles';
export { type Oklab, oklabToOklch, oklabToRgb, type Oklch, oklchToOklab, rgbToOklab } from './oklab';
export { hexesApart, NEAR_CHIPS, nearestOf, type NearPair, nearPairs, rangeOf } from './palette';
export { type NamedColour, PALETTE_FORMS, type PaletteForm, readPalette, writePalette } from './palette-text';
export { formatHex, fromLinear, normaliseHex, parseHex, type Rgb, toLinear } from './srgb';
