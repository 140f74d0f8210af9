import Dexie from 'dexie';
import { db } from './db.ts';

/** Tables of this database, by their names. */
type TableName =
  | 'items'
  | 'decisions'
  | 'ties'
  | 'drafts'
  | 'narrations'
  | 'outbox'
  | 'transfers'
  | 'bodies'
  | 'places'
  | 'details'
  | 'baselines'
  | 'playlists'
  | 'twins';

/**
 * Calls back whenever one of some tables was changed, in this tab, another or a worker.
 * @returns what ends it
 */
export function onChange(tables: readonly TableName[], changed: () => void): () => void {
  const prefixes = tables.map((table) => `idb://${db.name}/${table}/`);
  const listener = (parts: object): void => {
    if (Object.keys(parts).some((part) => prefixes.some((prefix) => part.startsWith(prefix))))
      changed();
  };
  Dexie.on('storagemutated', listener);
  return () => Dexie.on.storagemutated.unsubscribe(listener);
}
