/** What of a key event is read. */
export type Key = Pick<
  KeyboardEvent,
  'key' | 'code' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey' | 'repeat'
>;

/** Where the keyboard is: on the bed, on a control reached by Tab, or in a text field. */
export type Place = 'bed' | 'control' | 'text';

/** What keys do on the desk. */
export interface Keyboard {
  /** True when the key was used: the browser must not use it too. */
  down(e: Key, place: Place): boolean;
  up(e: Key): void;
  /** The window lost the keyboard: nothing is held any more. */
  blur(): void;
}
