const LETTERS = 'abcdefghijkmnpqrstuvwxyz23456789';

/** A new id of twelve letters and digits: 60 random bits. */
export const newId = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(12)), (b) => LETTERS[b & 31]).join('');
