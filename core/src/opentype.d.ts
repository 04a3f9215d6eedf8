// Only what `formats/font` calls: the package ships no types.
declare module 'opentype.js' {
  export type Command =
    | { readonly type: 'M' | 'L'; readonly x: number; readonly y: number }
    | { readonly type: 'Q'; readonly x1: number; readonly y1: number; readonly x: number; readonly y: number }
    | { readonly type: 'C'; readonly x1: number; readonly y1: number; readonly x2: number; readonly y2: number; readonly x: number; readonly y: number } // prettier-ignore
    | { readonly type: 'Z' };
  export interface Glyph {
    readonly index: number;
    readonly advanceWidth: number;
    getPath(x: number, y: number, size: number): { readonly commands: readonly Command[] };
  }
  export interface Font {
    readonly unitsPerEm: number;
    readonly position?: {
      getKerningTables(script: string | undefined): unknown;
      getKerningValue(tables: unknown, left: number, right: number): number;
    };
    stringToGlyphs(text: string): readonly Glyph[];
    charToGlyph(character: string): Glyph;
    getKerningValue(left: Glyph, right: Glyph): number;
    getEnglishName(name: string): string | undefined;
  }
  const opentype: { parse(bytes: ArrayBuffer): Font };
  export default opentype;
}
