import type { Desk } from '$lib/desk/desk.svelte';

/** What is said where something needs the picture's pixels and there are none. @param purpose as in "to settle onto" */
export const noPicture = ({ picture }: Desk, purpose: string): string =>
  picture.traced?.shown
    ? 'The picture’s pixels are not here yet. Nothing was changed. Try again in a moment.'
    : `There is no picture in sight ${purpose}. Nothing was changed.`;
