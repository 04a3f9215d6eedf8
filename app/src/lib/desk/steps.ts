/** The route bar's steps, in the order a drawing goes through them; one is free to go back and forth. */
export const STEPS = ['mount', 'block-in', 'refine', 'colour', 'proof', 'export'] as const;
export type Step = (typeof STEPS)[number];

/** Where the Glass stands when a step is first opened: 0 picture, 100 drawing. */
export const GLASS_AT_FIRST: Readonly<Record<Step, number>> = {
  mount: 0,
  'block-in': 0,
  refine: 0,
  colour: 50,
  proof: 100,
  export: 100,
};

export const STEP_NAMES: Readonly<Record<Step, string>> = {
  mount: 'Mount',
  'block-in': 'Block in',
  refine: 'Refine',
  colour: 'Colour',
  proof: 'Proof',
  export: 'Export',
};
