/** Most shapes in a drawing. */
export const MOST_SHAPES = 20_000;
/** Most anchors in a drawing, the parts about an axis counted as often as they are drawn. */
export const MOST_ANCHORS = 2_000_000;
/** Groups stand in each other so deep at most, the layer not counted. */
export const DEEPEST_GROUP = 64;
/** Most characters of a name or a note. */
export const MOST_CHARACTERS = 500;
