// A part of its own, fetched by `merging.ts`.
export { mergeArt } from '@mirrot/core';
