export { orderStrokes } from './order';
export { planPlot, type PlotPlan } from './plan';
export { type PlotLines, plotStrokes } from './strokes';
export { plotWay, type PlotWay } from './way';
