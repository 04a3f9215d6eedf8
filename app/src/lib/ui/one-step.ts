import { getContext, setContext } from 'svelte';

/** Makes changes so that those of one key that follow each other within a second are one step for undo. */
export type OneStep = (key: string, run: () => void) => void;

const KEY = Symbol('one step');

/** Says, for what stands within a component, how changes are made one step. */
export const provideOneStep = (oneStep: OneStep): void => void setContext(KEY, oneStep);

/** How changes are made one step here; each for itself where nothing says so. */
export const asOneStep = (): OneStep => getContext<OneStep | undefined>(KEY) ?? ((_key, run) => run());
