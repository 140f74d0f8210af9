import type { Transaction } from 'dexie';

/** A row as an earlier version kept it. */
type Row = Record<string, unknown>;

const JOURNAL: Record<string, string> = {
  linked: 'connected',
  unlinked: 'disconnected',
  'key-given': 'key-saved',
  placed: 'published',
  replaced: 'updated',
  'placing-failed': 'publish-failed',
  'lane-braked': 'lane-paused',
  'taken-up': 'restored'
};
const STATES: Record<string, string> = { placed: 'published', placing: 'publishing' };
const CALLS: Record<string, string> = { place: 'publish', replace: 'update' };
const REASONS: Record<string, string> = {
  'being-placed': 'publishing',
  'placing-failed': 'publish-failed',
  brake: 'rate-guard'
};

function renameField(row: Row, from: string, to: string): void {
  if (!(from in row)) return;
  row[to] = row[from];
  delete row[from];
}

function renameValue(row: Row, field: string, names: Record<string, string>): void {
  const value = row[field];
  if (typeof value === 'string') row[field] = names[value] ?? value;
}

/**
 * Gives lanes, records, entries, twins, narrations and the journal of version 7 the names that
 * they have had since version 8. Also used for lanes that were saved as files before.
 */
export const renames: Record<string, (row: Row) => void> = {
  lanes(row) {
    renameField(row, 'sift', 'filter');
    renameField(row, 'gate', 'approval');
    renameField(row.approval as Row, 'opens', 'mode');
  },
  records(row) {
    renameValue(row, 'state', STATES);
    if (!row.reason) return;
    renameValue(row.reason as Row, 'kind', REASONS);
    renameValue(row.reason as Row, 'why', { 'nothing-told': 'nothing-stated' });
  },
  outbox(row) {
    renameField(row, 'placedRevision', 'publishedRevision');
    renameValue(row, 'state', STATES);
    renameValue(row, 'wanted', STATES);
  },
  journal: (row) => renameValue(row, 'what', JOURNAL),
  steps: (row) => renameValue(row, 'did', CALLS),
  twins(row) {
    renameField(row, 'alsoTold', 'otherPosts');
    renameValue(row.reason as Row, 'kind', REASONS);
  },
  narrations(row) {
    for (const scene of (row.scenes ?? []) as { lines?: Row[] }[])
      for (const line of scene.lines ?? []) renameField(line, 'heard', 'spoken');
  },
  renders(row) {
    if (typeof row.madeFrom === 'string')
      row.madeFrom = row.madeFrom.replaceAll('"heard":', '"spoken":');
  }
};

export async function renameAll(change: Transaction): Promise<void> {
  for (const [table, rename] of Object.entries(renames))
    await change.table(table).toCollection().modify(rename);
}

/** Scenes that show a sentence are statements since version 10. */
export function nameStatements(row: Row): void {
  for (const scene of (row.scenes ?? []) as Row[])
    renameValue(scene, 'kind', { sentence: 'statement' });
}
