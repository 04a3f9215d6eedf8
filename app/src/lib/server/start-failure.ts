/** Why a server cannot start, and the exit code that says so to whoever started it. */
export const EXIT_CODES = {
  full: 70,
  'read-only': 71,
  damaged: 72,
  newer: 73,
  'in-use': 74,
  unknown: 79,
} as const;

export type StartCause = keyof typeof EXIT_CODES;

/** The database cannot be opened: the cause and a sentence for people. */
export class StartFailure extends Error {
  constructor(
    readonly reason: StartCause,
    message: string,
  ) {
    super(message);
    this.name = 'StartFailure';
  }
}

const codeOf = (error: unknown): string => String((error as { code?: unknown } | null)?.code ?? '');

/** What went wrong with storing, in one word, by what SQLite or the system says; null for anything else. */
export function storageTrouble(error: unknown): 'full' | 'read-only' | 'damaged' | null {
  const code = codeOf(error);
  if (/^(SQLITE_FULL|ENOSPC|EDQUOT)/.test(code)) return 'full';
  if (/^(SQLITE_READONLY|SQLITE_CANTOPEN|EACCES|EROFS|EPERM)/.test(code)) return 'read-only';
  if (/^(SQLITE_CORRUPT|SQLITE_NOTADB)/.test(code)) return 'damaged';
  return null;
}

/** The sentence for an error while the database is opened. */
export function startFailure(error: unknown, file: string): StartFailure {
  if (error instanceof StartFailure) return error;
  switch (storageTrouble(error)) {
    case 'full':
      return new StartFailure('full', `There is no room left on the disk for ${file}. Nothing was changed. Make room and start again.`); // prettier-ignore
    case 'read-only':
      return new StartFailure('read-only', `The folder or file ${file} cannot be written. Nothing was changed. Look at its permissions, or name another folder with MIRROT_DATA.`); // prettier-ignore
    case 'damaged':
      return new StartFailure('damaged', `The database ${file} is damaged and was left as it is. Put a backup in its place (npm run backup makes them).`); // prettier-ignore
    default:
      return new StartFailure('unknown', `The database ${file} cannot be opened: ${error instanceof Error ? error.message : String(error)}`); // prettier-ignore
  }
}
