/** A request that cannot be carried out: the status, a code for programs, a sentence for people. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly extra: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
    this.name = 'Refusal';
  }
}

export const noProject = (): Refusal =>
  new Refusal(404, 'no-project', 'There is no such project. It may have been deleted.');
