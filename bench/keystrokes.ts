// The keystroke-level model of how long a practised hand takes: Card, Moran and Newell, "The keystroke-level model for user
// performance time with interactive systems", Communications of the ACM 23 (1980). Times from memory: the paper's key, pointing and
// thinking; a button's press or release after later editions of the model.

/** Seconds each act takes. */
const SECONDS = {
  /** A key, by an average skilled typist. */
  key: 0.2,
  /** The pointer brought to a place. */
  point: 1.1,
  /** A button pressed, or let go. */
  button: 0.1,
  /** Making up one's mind. */
  think: 1.35,
} as const;

/** What a hand has done: presses of buttons and keys, and seconds by the model. The other hand stays on the keys. */
export interface Hand {
  presses: number;
  seconds: number;
}
export const freshHand = (): Hand => ({ presses: 0, seconds: 0 });

function does(hand: Hand, presses: number, seconds: number): void {
  hand.presses += presses;
  hand.seconds += SECONDS.think + seconds;
}
/** A click somewhere that was thought about. */
export const click = (hand: Hand): void => does(hand, 1, SECONDS.point + 2 * SECONDS.button);
/** A press at one place, drawn to another. */
export const drag = (hand: Hand): void => does(hand, 1, 2 * (SECONDS.point + SECONDS.button));
/** A key, pressed so often. */
export const press = (hand: Hand, times = 1): void => does(hand, times, times * SECONDS.key);
