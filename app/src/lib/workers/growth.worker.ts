import { followGrowth, type Grown } from '@mirrot/core';
import * as Comlink from 'comlink';
import type { ErrorAnswer, GrowthAnswer } from '$lib/wire';
import type { GrowthWork } from './growth';

// Follows how a drawing grew, away from the page.

let grown: Grown | null = null;

const work: GrowthWork = {
  async open(projectId) {
    const answer = await fetch(`/api/projects/${projectId}/growth`).catch(() => null);
    if (!answer) throw new Error('The server is away: how the drawing grew is known there. Try it later.');
    const told = (await answer.json()) as GrowthAnswer | ErrorAnswer;
    if ('error' in told) throw new Error(told.error.message);
    grown = followGrowth(told);
    const { count, anchors, workMs } = grown;
    return { count, anchors, workMs };
  },
  artAt: async (changes) => grown?.artAt(changes) ?? null,
};
Comlink.expose(work);
