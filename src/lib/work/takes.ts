import { proxy } from 'comlink';
import type { Line } from '$lib/core/narration/line.ts';
import type { MediaProblem } from '$lib/core/narration/narration.ts';
import type { Take } from '$lib/voice/readAloud.ts';
import type { KeptTake } from '$lib/workers/takesApi.ts';
import { takesWorker } from '$lib/workers/takes.ts';
import { runTask } from './tasks.svelte.ts';

const today = (): string => new Date().toISOString().slice(0, 10);

/** Keeps a sentence that was read aloud. @returns null where nothing is heard in it */
export const keepTake = (take: Take): Promise<KeptTake> => takesWorker().keepTake(take, today());

/** What was found of a script in a recording. */
export type ReadScript =
  | {
      takes: Map<string, NonNullable<Line['take']>>;
      /** Lines that may have been read otherwise, and lines that were not heard, by id. */
      doubtful: string[];
      unheard: string[];
      problem: null;
    }
  | { takes: null; problem: MediaProblem };

/** Finds lines in a recording of all of them. */
export function readRecording(
  file: File,
  lines: readonly Line[],
  options: Pick<Take, 'language' | 'isDenoised'>
): Promise<ReadScript> {
  return runTask(`Finding the sentences in “${file.name}”`, async (signal, report) => {
    const told = proxy((share: number) => {
      signal.throwIfAborted();
      report(`${Math.round(100 * share)} %`, share);
    });
    const spoken = lines.map((l) => l.spoken);
    const { takes, problem } = await takesWorker().keepRecording(
      file,
      spoken,
      options,
      today(),
      told
    );
    signal.throwIfAborted();
    if (problem) return { takes: null, problem };
    return { ...sorted(lines, takes), problem: null };
  });
}

function sorted(lines: readonly Line[], found: readonly KeptTake[]) {
  const takes = new Map<string, NonNullable<Line['take']>>();
  const doubtful: string[] = [];
  const unheard: string[] = [];
  for (const [i, { id, spoken }] of lines.entries()) {
    const take = found[i];
    if (!take) unheard.push(id);
    else takes.set(id, { key: take.key, spoken });
    if (take?.isDoubtful) doubtful.push(id);
  }
  return { takes, doubtful, unheard };
}
