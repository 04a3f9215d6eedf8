import { z } from 'zod';
import { MOST_CHARACTERS } from './limits';

// What may stand in names and notes: any script, right-to-left and emoji too. Control characters, halves of surrogate
// pairs and the two non-characters are left out: XML 1.0 (section 2.2) cannot hold them, so no file could.
const NOT_TEXT = '\\p{Cc}\\p{Cs}\\uFFFE\\uFFFF';
const isText = new RegExp(`^[^${NOT_TEXT}]*$`, 'u');

const text = z
  .string()
  .max(MOST_CHARACTERS, `A name has ${MOST_CHARACTERS} characters at most.`)
  .regex(isText, 'A name cannot hold control characters or halves of characters.');

/** A name as the document holds it. */
export const heldNameSchema = text.regex(/\S/, 'A name needs at least one character.');

/** A name as people type it: spaces around it are taken off. */
export const nameSchema = z.string().trim().min(1, 'A name needs at least one character.').pipe(text);

/** A note: may be empty. */
export const noteSchema = text;

/** The first `most` UTF-16 units of a text, one fewer where that would cut a character in half. */
export function cutText(value: string, most: number): string {
  const cut = value.slice(0, most);
  return /[\uD800-\uDBFF]$/.test(cut) ? cut.slice(0, -1) : cut;
}

/** A name made of any text: what a name cannot hold is left out, the rest cut to fit; `otherwise` where nothing is left. */
export const fitName = (value: string, otherwise: string): string =>
  cutText(value.replace(new RegExp(`[${NOT_TEXT}]`, 'gu'), '').trim(), MOST_CHARACTERS).trim() || otherwise;

/** Room that a number takes in a name, UTF-16 units. */
const NUMBER_CHARACTERS = 8;

/** A name with the lowest number, from `first`, that is not taken: "Shape 4", "Group 1". */
export function numberedName(stem: string, taken: ReadonlySet<string>, first = 1): string {
  const cut = cutText(stem, MOST_CHARACTERS - NUMBER_CHARACTERS);
  for (let n = first; ; n++) if (!taken.has(`${cut} ${n}`)) return `${cut} ${n}`;
}
