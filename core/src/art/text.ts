import { MOST_CHARACTERS } from './limits';

// What may stand in names and notes: any script, right-to-left and emoji too. Control characters, halves of surrogate
// pairs and the two non-characters are left out: XML 1.0 (section 2.2) cannot hold them, so no file could.
const NOT_TEXT = '\\p{Cc}\\p{Cs}\\uFFFE\\uFFFF';
const isText = new RegExp(`^[^${NOT_TEXT}]*$`, 'u');

const hasText = /\S/;

/** Why a text can be no note; null where it can. */
export const noteProblem = (value: string): string | null =>
  value.length > MOST_CHARACTERS
    ? `A name has ${MOST_CHARACTERS} characters at most.`
    : isText.test(value)
      ? null
      : 'A name cannot hold control characters or halves of characters.';

/** Why a text can be no name; null where it can. Spaces around it are not looked at. */
export const nameProblem = (value: string): string | null =>
  hasText.test(value) ? noteProblem(value.trim()) : 'A name needs at least one character.';

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

/**
 * Gives each copy a name of its own, remembered as taken: "Spoke", then "Spoke 2", "Spoke 3". Counts on from where it was for
 * a name, so that thousands of one name cost no more than their number.
 *
 * @param always numbers a name also where it is free
 */
export function copyNames(taken: ReadonlySet<string>, always = false): (name: string) => string {
  const used = new Set(taken);
  const next = new Map<string, number>();
  return (name) => {
    const stem = name.replace(/ \d+$/, '');
    let free = name;
    if (always || used.has(name)) {
      free = numberedName(stem, used, next.get(stem) ?? 2);
      next.set(stem, Number(/\d+$/.exec(free)![0]) + 1);
    }
    used.add(free);
    return free;
  };
}

/** A name with the lowest number, from `first`, that is not taken: "Shape 4", "Group 1". */
export function numberedName(stem: string, taken: ReadonlySet<string>, first = 1): string {
  const cut = cutText(stem, MOST_CHARACTERS - NUMBER_CHARACTERS);
  for (let n = first; ; n++) if (!taken.has(`${cut} ${n}`)) return `${cut} ${n}`;
}
