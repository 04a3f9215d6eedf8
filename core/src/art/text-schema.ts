import { z } from 'zod';
import { nameProblem, noteProblem } from './text';

/** A text that a rule finds nothing wrong with; what is wrong is the rule's sentence. */
const textBy = (problem: (value: string) => string | null) =>
  z.string().check(({ value, issues }) => {
    const message = problem(value);
    if (message !== null) issues.push({ code: 'custom', message, input: value });
  });

/** A note: may be empty. */
export const noteSchema = textBy(noteProblem);

/** A name as the document holds it. */
export const heldNameSchema = textBy((value) => noteProblem(value) ?? nameProblem(value));

/** A name as people type it: spaces around it are taken off. */
export const nameSchema = z.string().trim().pipe(textBy(nameProblem));
