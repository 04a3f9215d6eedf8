/** The one error the core throws: a code for programs and a sentence for people. */
export class MirrotError extends Error {
  readonly code: string;

  /**
   * @param code kebab-case word for programs, for example `path-data`
   * @param message one or two plain sentences: what happened, what is kept, what to do
   */
  constructor(code: string, message: string) {
    super(message);
    this.name = 'MirrotError';
    this.code = code;
  }
}
