/** The step's panel in the eye, each loaded when its step is opened. */
export const PANELS = {
  mount: () => import('./mount/Panel.svelte'),
  'block-in': () => import('./block-in/Panel.svelte'),
  refine: () => import('./refine/Panel.svelte'),
  colour: () => import('./colour/Panel.svelte'),
  proof: () => import('./proof/Panel.svelte'),
  export: () => import('./export/Panel.svelte'),
};

export const BENCH = () => import('./export/bench/Bench.svelte');
export const REPLAY = () => import('./proof/replay/Replay.svelte');

/** Dialogs of the steps, each loaded when it is first wanted. */
export const DIALOGS = {
  'square-up': () => import('./mount/SquareUp.svelte'),
  swap: () => import('./mount/Swap.svelte'),
  sheet: () => import('./mount/SheetDialog.svelte'),
  'real-size': () => import('./mount/RealSize.svelte'),
};
