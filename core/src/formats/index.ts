export { type DxfFile, writeDxf } from './dxf/write';
export { type EpsFile, writeEps } from './eps/write';
export * from './font';
export {
  filterElement,
  coveringAttributes,
  gradientElement,
  type GradientElement,
  type Reference,
  shapeAttributes,
} from './svg/attributes';
export { type MaskElement, maskElements } from './svg/masks';
export { outputPictures, type SvgOptions, writeColourways, writeParts, writeSvg } from './svg/write';
export { readSvg, type SvgReading } from './svg/read/read';
