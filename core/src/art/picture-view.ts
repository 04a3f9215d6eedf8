/** How a picture is shown to see by; the pixels stay what they are. */
export const PICTURE_VIEWS = ['plain', 'grey', 'tones', 'edges', 'lines'] as const;
export type PictureView = (typeof PICTURE_VIEWS)[number];
