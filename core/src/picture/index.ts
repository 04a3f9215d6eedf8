export {
  type ColourDifference,
  colourDifference,
  DARKEST_DIFFERENCE,
  DIFFERENCE_LADDER,
  differencePixels,
  EYE_CATCHING,
} from './colour-difference';
export { choosePalette, type PictureColour } from './choose-palette';
export { cleanEdge, type Coverage } from './clean-edge';
export { edgePicture, lineDrawing } from './edges';
export { halved } from './halve';
export { levelOffer, type LevelOffer } from './level';
export { greyPicture } from './lightness';
export { type Taken, takePhoto, takeScan } from './practice';
export { pixelAt, type Raster } from './raster';
export { sampleDisc } from './sample';
export { type Symmetry, symmetryAxis } from './symmetry';
export { otsuLevels, type ToneOptions, type Tones, toneSteps } from './tones';
export { warpRaster } from './warp';
