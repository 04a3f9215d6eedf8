export {
  blurRoom,
  coveringAttributes,
  gradientElement,
  type GradientElement,
  type Reference,
  shapeAttributes,
} from './svg/attributes';
export { outputPictures, type SvgOptions, writeSvg } from './svg/write';
