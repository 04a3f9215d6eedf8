/** Largest picture file taken, in bytes, and most pixels. */
export const MOST_BYTES = 60 * 1024 * 1024;
/** Largest bundle taken, in bytes: it holds pictures. */
export const MOST_BUNDLE_BYTES = 240 * 1024 * 1024;
export const MOST_PIXELS = 100_000_000;

/** Most patches in one request, and most bytes of a request in JSON. */
export const MOST_PATCHES = 2000;
export const MOST_JSON_BYTES = 8 * 1024 * 1024;
