/**
 * What was typed and is not in the database yet. The database answers too late for a page that is
 * being closed; this storage of the browser is written at once.
 */
const PREFIX = 'unsaved/';

export function keepUnsaved(name: string, value: unknown): void {
  try {
    localStorage.setItem(PREFIX + name, JSON.stringify(value));
  } catch {
    // It is full or forbidden: the database is all there is.
  }
}

/** @returns what was kept, not yet checked, or null */
export function readUnsaved(name: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(PREFIX + name) ?? 'null');
  } catch {
    return null;
  }
}

export function dropUnsaved(name: string): void {
  try {
    localStorage.removeItem(PREFIX + name);
  } catch {
    // Where nothing can be kept, nothing is.
  }
}

/** Forgets all of it. */
export function dropAllUnsaved(): void {
  try {
    for (const name of Object.keys(localStorage))
      if (name.startsWith(PREFIX)) localStorage.removeItem(name);
  } catch {
    // Where nothing can be kept, nothing is.
  }
}
