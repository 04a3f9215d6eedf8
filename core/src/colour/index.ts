export { type Cielab, rgbToCielab } from './cielab';
export { contrastRatio } from './contrast';
export { deltaE2000 } from './difference';
export { type Oklab, oklabToOklch, oklabToRgb, type Oklch, oklchToOklab, rgbToOklab } from './oklab';
export { formatHex, fromLinear, normaliseHex, parseHex, type Rgb, toLinear } from './srgb';
