import { describe, expect, it } from 'vitest';
import { keyName } from './command';

const key = (key: string, more: Partial<KeyboardEvent> = {}): string =>
  keyName({ key, code: '', ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...more });

describe('the name of a key press', () => {
  it.each([
    ['a letter by what it prints', key('j'), 'J'],
    ['with Shift', key('J', { shiftKey: true }), 'Shift+J'],
    ['a digit by its place, whatever it prints', key('&', { code: 'Digit1' }), '1'],
    ['a digit with Shift', key(')', { code: 'Digit0', shiftKey: true }), 'Shift+0'],
    ['of the number pad', key('6', { code: 'Numpad6' }), '6'],
    ['of the number pad with NumLock off, where 4 is an arrow', key('ArrowLeft', { code: 'Numpad4' }), '←'],
    ['plus, which needs Shift on some keyboards', key('+', { shiftKey: true }), '+'],
    ['equals as plus', key('='), '+'],
    ['question mark', key('?', { shiftKey: true }), '?'],
    ['Ctrl', key('z', { ctrlKey: true }), 'Mod+Z'],
    ['⌘', key('z', { metaKey: true, shiftKey: true }), 'Mod+Shift+Z'],
    ['arrows', key('ArrowLeft', { altKey: true }), 'Alt+←'],
    ['Space', key(' '), 'Space'],
    ['Backspace', key('Backspace'), 'Backspace'],
  ])('%s', (_what, name, expected) => expect(name).toBe(expected));
});
