import type { Component } from 'svelte';
import type { Step } from '$lib/desk/steps';
import type { Workplace } from '$lib/desk/workplace.svelte';
import BlockIn from './block-in/Panel.svelte';
import Colour from './colour/Panel.svelte';
import Export from './export/Panel.svelte';
import Mount from './mount/Panel.svelte';
import Proof from './proof/Panel.svelte';
import Refine from './refine/Panel.svelte';

/** The step's panel in the eye. */
export const PANELS: Readonly<Record<Step, Component<{ workplace: Workplace }>>> = {
  mount: Mount,
  'block-in': BlockIn,
  refine: Refine,
  colour: Colour,
  proof: Proof,
  export: Export,
};
