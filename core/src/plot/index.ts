export { type PlotLines, plotStrokes } from './strokes';
