import { findings } from '@mirrot/core';
import * as Comlink from 'comlink';
import type { ProofWork } from './proof';

// Proves drawings away from the page.

const work: ProofWork = { findings: async (...asked) => findings(...asked) };
Comlink.expose(work);
