export { type Font, fontProblem, MOST_FONT_BYTES, type PlacedGlyph, readFont } from './font';
export { type LetterPaths, letterPaths } from './letter-paths';
