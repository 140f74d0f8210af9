/** What is wrong with the call or the input, in one line. */
export class BadInput extends Error {
  /** @param out what there is to say all the same, on standard output */
  constructor(
    message: string,
    readonly out = ''
  ) {
    super(message);
  }
}

/** Why a file cannot be read. */
export function whyUnreadable(error: unknown): string {
  switch ((error as NodeJS.ErrnoException).code) {
    case 'ENOENT':
      return 'there is no such file';
    case 'EISDIR':
      return 'this is a folder';
    default:
      return 'it cannot be read';
  }
}
