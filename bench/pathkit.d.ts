// Only what the measurements call: the package ships no types.
declare module 'pathkit-wasm/bin/pathkit.js' {
  export interface KitPath {
    op(other: KitPath, how: unknown): void;
    stroke(options: object): KitPath;
    simplify(): void;
    toSVGString(): string;
    setFillType(type: unknown): void;
    delete(): void;
  }
  export interface Kit {
    FromSVGString(d: string): KitPath;
    readonly PathOp: Readonly<Record<'UNION', unknown>>;
    readonly FillType: Readonly<Record<'EVENODD', unknown>>;
    readonly StrokeJoin: Readonly<Record<'ROUND', unknown>>;
    readonly StrokeCap: Readonly<Record<'ROUND', unknown>>;
  }
  export default function PathKitInit(options: { wasmBinary: Uint8Array }): Promise<Kit>;
}
