import atkinsonBold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url';
import atkinson from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url';
import bricolageBold from '@fontsource/bricolage-grotesque/files/bricolage-grotesque-latin-700-normal.woff?url';
import bricolage from '@fontsource/bricolage-grotesque/files/bricolage-grotesque-latin-400-normal.woff?url';

/** A font that ships: where its file is. Its id stands in documents and never changes. */
export interface ShippedFont {
  readonly id: string;
  readonly name: string;
  readonly address: string;
}

export const SHIPPED_FONTS: readonly ShippedFont[] = [
  { id: 'bricolage', name: 'Bricolage Grotesque', address: bricolage },
  { id: 'bricolage-bold', name: 'Bricolage Grotesque bold', address: bricolageBold },
  { id: 'atkinson', name: 'Atkinson Hyperlegible Next', address: atkinson },
  { id: 'atkinson-bold', name: 'Atkinson Hyperlegible Next bold', address: atkinsonBold },
];

/** Where a font's file is: one that ships, or one that the server keeps. */
export const fontAddress = (id: string): string =>
  SHIPPED_FONTS.find((font) => font.id === id)?.address ?? `/api/fonts/${id}`;
