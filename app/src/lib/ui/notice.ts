/** A short message; `action` is what can be done about it. */
export interface Notice {
  readonly text: string;
  readonly tone: 'plain' | 'good' | 'bad';
  readonly action?: { readonly label: string; run(): void };
}
