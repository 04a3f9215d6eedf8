/** Something under way that can be stopped. */
export interface Progress {
  readonly text: string;
  readonly share: number | null;
  stop(): void;
}
