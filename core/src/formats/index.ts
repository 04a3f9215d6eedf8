export { readBundles } from './bundle/read';
export {
  type Bundle,
  type BundledChange,
  type BundledCopy,
  type BundledFile,
  writeBundle,
  writeZip,
} from './bundle/write';
export { readDxf } from './dxf/read';
export { writeDxf } from './dxf/write';
export { writeEps } from './eps/write';
export * from './font';
export { type FileKind, leftOut, type LeftOut } from './left-out';
export { type HpglReading, readHpgl } from './hpgl/read';
export { writeHpgl } from './hpgl/write';
export { type Leaf, leavesOf, type OutlinedShape, outlinesOf } from './outlines';
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
