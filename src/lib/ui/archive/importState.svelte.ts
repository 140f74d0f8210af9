import type { ArchiveFault } from '$lib/core/archive/problem.ts';
import type { ArchiveTableName } from '$lib/core/archive/tables.ts';
import type { Problem } from '$lib/core/model/place.ts';
import { rowName } from '$lib/data/archive/rows.ts';
import { EVERYTHING } from '$lib/data/everything.ts';
import { examineArchive, importArchive, keysOfArchive } from '$lib/work/archive/importing.ts';
import { undoDiscard } from '$lib/work/discard.ts';
import { attempt } from '$lib/work/tasks.svelte.ts';
import type { ExaminedArchive } from '$lib/workers/archiveApi.ts';

/** An archive on its way in: chosen, examined, imported. */
export class ImportState {
  file = $state.raw<File | null>(null);
  examined = $state.raw<ExaminedArchive | null>(null);
  isBusy = $state(false);
  fault = $state.raw<ArchiveFault | null>(null);
  problem = $state.raw<Problem | null>(null);
  how = $state<'merge' | 'replace'>('merge');
  holds = $state(true);
  passphrase = $state('');
  isWrongPassphrase = $state(false);
  /** What the user chose of rows that differ; the others go by their time. */
  taken = $state.raw<ReadonlyMap<string, boolean>>(new Map());
  /** Rows that were written, once it is imported. */
  imported = $state<number | null>(null);

  async choose(file: File): Promise<void> {
    this.clear();
    this.file = file;
    const outcome = await this.#during(() => examineArchive(file));
    this.fault = outcome?.fault ?? null;
    this.examined = outcome?.value ?? null;
  }

  /** Forgets the archive; nothing was changed by it. */
  clear(): void {
    this.file = this.examined = this.fault = this.problem = this.imported = null;
    this.taken = new Map();
    this.how = 'merge';
    this.holds = true;
    this.passphrase = '';
    this.isWrongPassphrase = false;
  }

  isTaken(row: { table: ArchiveTableName; key: string; isNewer: boolean }): boolean {
    return this.taken.get(rowName(row.table, row.key)) ?? row.isNewer;
  }

  take(rows: readonly { table: ArchiveTableName; key: string }[], isTaken: boolean): void {
    const names = rows.map(({ table, key }) => [rowName(table, key), isTaken] as const);
    this.taken = new Map([...this.taken, ...names]);
  }

  /** Goes by the times of the rows again. */
  takeNewer(): void {
    this.taken = new Map();
  }

  async import(): Promise<void> {
    const { file, examined } = this;
    if (!file || !examined) return;
    this.isWrongPassphrase = false;
    const outcome = await this.#during(async () => {
      const keys = this.passphrase ? await keysOfArchive(file, this.passphrase) : [];
      if (!keys) return null;
      const { how, taken } = this;
      const holds = this.holds && examined.plan.running > 0;
      return importArchive(file, examined, { how, taken, holds, keys });
    });
    if (this.problem) return;
    this.isWrongPassphrase = outcome === null;
    this.fault = outcome?.fault ?? null;
    if (outcome?.value)
      this.imported = Object.values(outcome.value).reduce((sum, rows) => sum + rows, 0);
  }

  /** @returns whether what was here before could be had back */
  undo(): Promise<boolean> {
    return undoDiscard(EVERYTHING, this.file?.name ?? '');
  }

  async #during<T>(work: () => Promise<T>): Promise<T | null> {
    this.isBusy = true;
    const { value, problem } = await attempt(work);
    this.isBusy = false;
    this.problem = problem;
    return value;
  }
}
