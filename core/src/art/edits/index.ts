// Every function here gives a recipe for `changeArt`. A recipe that names what is not there does nothing.
export {
  addBeside,
  addLayer,
  addNode,
  addNodes,
  removeNodes,
  restack,
  setLayerInk,
  setNode,
  together,
  type StackMove,
} from './nodes';
export { releaseAxis, setAxis, setDrawingAxis } from './axes';
export { freeHole, letPathsBe, makeHole, mapShape, mapWithPicture, removePath, setLettering, setPath, setPaths, setPoured } from './paths'; // prettier-ignore
export {
  arrangeNodes,
  type Extent,
  flipNodes,
  type Frame,
  mapNodes,
  matchNodes,
  nodeBox,
  nodesBox,
  type Place,
  type Side,
  spreadNodes,
} from './arranging';
export { partShared, shareBorder } from './borders';
export { copiesOf, type Copies } from './copying';
export { cuttingOf, pasteCutting, type Pasting } from './cutting';
export { BACKGROUND_NAME, layBackground } from './background';
export { freeGroups, groupNodes, moveLayers, moveNodes } from './moving';
export {
  addChip,
  formStrokes,
  keepAsChip,
  keepColourway,
  paintShapes,
  putOn,
  recolourChips,
  removeChip,
  removeColourway,
  replaceChips,
  setChip,
  setClip,
  setCutEdge,
  setCovering,
  styleShapes,
  takeLook,
  takeOff,
  toneShapes,
  weighStrokes,
  type Covering,
  type PaintTarget,
  type ShapeStyle,
  type LineForm,
} from './style';
export { putAside } from './aside';
export { setFollow, setMeant, setPlace, setUnmeasured } from './measuring';
export { addPicture, movePicture, removePicture, setPicture, traceFrom } from './pictures';
export { addGuide, lockGuides, removeGuides, setGrid, setGuide, setSheet, shiftAll } from './sheet';
export { partCopies } from './parting';
export { mapChosen, mapRepeats, setRepeat } from './repeating';
export { bringBack, type BroughtBack } from './bringing-back';
