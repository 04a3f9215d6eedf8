/** Most shapes in a drawing. */
export const MOST_SHAPES = 20_000;
/** Most anchors in a drawing, the parts about an axis counted as often as they are drawn. */
export const MOST_ANCHORS = 2_000_000;
/** Groups stand in each other so deep at most, the layer not counted. */
export const DEEPEST_GROUP = 64;
/** Most characters of a name or a note. */
export const MOST_CHARACTERS = 500;
/** Coordinates lie within this many sheet pixels (over 250 m); beyond it the numbers stop being exact enough to draw. */
export const FARTHEST_COORDINATE = 1e6;
/** Most copies of a group, itself counted. */
export const MOST_COPIES = 500;
/** A cutout's edge lies, and its shadow reaches, this far from the outline at most, sheet pixels. */
export const WIDEST_EDGE = 10_000;
/** The darkest ground, luma from 0 to 1, that a shadow is told from. */
export const DARKEST_GROUND = 0.05;
/** Most colourways that are kept. */
export const MOST_COLOURWAYS = 100;
/** Most chips of a palette. */
export const MOST_CHIPS = 1000;
/** Most findings that are put aside. */
export const MOST_ASIDE = 5000;
/** Version of the document that this code writes. */
export const ART_VERSION = 12;
