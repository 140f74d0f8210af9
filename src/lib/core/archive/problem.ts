/** Why a file cannot be read as an archive at all. */
export type ArchiveFault =
  | { kind: 'not-an-archive' }
  /** Its end is missing, as when a download was cut off. */
  | { kind: 'cut-off' }
  | { kind: 'manifest-damaged' }
  /** Made by a later version of this application. */
  | { kind: 'later-version' }
  /** Its tables are of an earlier version, and not as that version had them. */
  | { kind: 'tables-damaged' };

export class ArchiveError extends Error {
  constructor(readonly fault: ArchiveFault) {
    super(fault.kind);
  }
}

/** What is wrong with one file of an archive that can be read otherwise. */
export type ArchiveFinding =
  /** The manifest names it, but it is not there. */
  | { kind: 'missing'; file: string }
  /** It is not what it was when the archive was made. */
  | { kind: 'damaged'; file: string }
  /** It stands in no manifest, so nobody knows what it should be: it is left alone. */
  | { kind: 'unlisted'; file: string }
  /** Some rows are not what rows of their table are; the first of them is told, its line from 1. */
  | { kind: 'bad-rows'; file: string; rows: number; line: number; detail: string };

/** Whether nothing of the file can be used. */
export const isUnusable = ({ kind }: ArchiveFinding): boolean => kind !== 'bad-rows';
