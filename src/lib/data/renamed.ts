import type { Transaction } from 'dexie';
import { styleSchema } from '$lib/core/narration/styles.ts';

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

/** Scenes that show a sentence are statements since version 10, and styles have motion and a speaker. */
export async function toVersion10(change: Transaction): Promise<void> {
  for (const table of ['narrations', 'lanes', 'updates', 'settings', 'trash'])
    await change.table(table).toCollection().modify(completeLooks);
}

/** Gives every style within a row what it did not have before, and every scene the name of its kind. */
function completeLooks(row: Row): void {
  for (const [name, value] of Object.entries(row)) {
    if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) continue;
    if (name === 'scenes' && Array.isArray(value))
      for (const scene of value as Row[]) renameValue(scene, 'kind', { sentence: 'statement' });
    const style = name === 'style' ? styleSchema.safeParse(value).data : undefined;
    if (style) row[name] = style;
    else if (Array.isArray(value) || Object.getPrototypeOf(value) === Object.prototype)
      completeLooks(value as Row);
  }
}
