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

/** What a hand has done: presses of buttons and keys, and seconds by the model. One hand stays on the keys, one on the pointer. */
export class Hand {
  presses = 0;
  seconds = 0;

  /** A click somewhere that was thought about. */
  click(): void {
    this.presses++;
    this.seconds += SECONDS.think + SECONDS.point + 2 * SECONDS.button;
  }
  /** A press at one place, drawn to another. */
  drag(): void {
    this.presses++;
    this.seconds += SECONDS.think + 2 * (SECONDS.point + SECONDS.button);
  }
  key(times = 1): void {
    this.presses += times;
    this.seconds += SECONDS.think + times * SECONDS.key;
  }
}
