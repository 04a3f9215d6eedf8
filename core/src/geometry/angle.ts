/** Degrees as radians. */
export const toRadians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Radians as degrees. */
export const toDegrees = (radians: number): number => (radians * 180) / Math.PI;
