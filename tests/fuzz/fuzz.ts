/**
 * Tries everything that reads what comes from outside with input that was made to hold it up:
 * `npm run fuzz -- --minutes 60 --seed 1 --only html`. No input of 100 KB may take over 1 s or 100 MB, or end in
 * an error that is no refusal. Prints what did, with its seed, and ends with 1.
 */
import { fork, type ChildProcess } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { getHeapStatistics } from 'node:v8';
import fc from 'fast-check';
import { READERS, REFUSALS, type Reader } from './readers.ts';

/** Characters of an input, seconds and megabytes that it may take. */
const [LONGEST, SECONDS, MEGABYTES] = [100_000, 1, 100];
/** Seconds after which a worker is ended. */
const HANGS = 15;

interface Tried {
  seed: number;
  seconds: number;
  error: string;
}
interface Given {
  reader: string;
  seed: number;
}

/** Pieces in a row, over and over, perhaps closed by others, and perhaps with something between. */
function inputsOf({ pieces, around }: Reader): fc.Arbitrary<string> {
  const some = fc.array(fc.constantFrom(...pieces), { minLength: 1, maxLength: 4 });
  const noise = fc.oneof(fc.constant(''), fc.string({ unit: 'binary', maxLength: 20 }));
  const length = fc.constantFrom(500, 5_000, LONGEST, LONGEST, LONGEST);
  const repeated = fc
    .tuple(some, some, noise, length, fc.boolean())
    .map(([first, second, between, most, isClosed]) => {
      const once = first.join('') + between;
      const again = second.join('');
      const all = isClosed
        ? once.repeat(most / 2 / once.length) + again.repeat(most / 2 / again.length)
        : `${again}${once.repeat(most / once.length)}`;
      return all.slice(0, most);
    });
  const mixed = fc
    .array(fc.constantFrom(...pieces), { minLength: 50, maxLength: 3_000, size: 'max' })
    .map((parts) => parts.join('').slice(0, LONGEST));
  return fc
    .tuple(fc.oneof({ arbitrary: repeated, weight: 3 }, mixed), fc.constantFrom(...around))
    .map(([content, form]) => form.replace('%', () => content).slice(0, LONGEST));
}

function inputOf({ reader, seed }: Given): string {
  const [input] = fc.sample(inputsOf(READERS[reader]!), { seed, numRuns: 1 });
  return input ?? '';
}

async function tryOne(given: Given): Promise<Tried> {
  const input = inputOf(given);
  const begun = performance.now();
  let error = '';
  try {
    await READERS[given.reader]!.read(input);
  } catch (thrown) {
    const { name, message } = thrown as Error;
    const kind = (thrown as Error).constructor.name;
    if (!REFUSALS.has(kind) && !REFUSALS.has(name)) error = `${kind}: ${message.slice(0, 100)}`;
  }
  return { seed: given.seed, seconds: (performance.now() - begun) / 1000, error };
}

const [, , of, reader = ''] = process.argv;
if (of === 'of') {
  // What reading needs at all, models included, is no part of what an input takes.
  await tryOne({ reader, seed: -1 });
  process.on('message', (seed: number) => {
    void tryOne({ reader, seed }).then((tried) => process.send?.(tried));
  });
  process.send?.(Math.ceil(getHeapStatistics().used_heap_size / 2 ** 20));
} else process.exitCode = (await fuzz()) ? 1 : 0;

async function fuzz(): Promise<boolean> {
  const { values } = parseArgs({
    options: {
      minutes: { type: 'string', default: '1' },
      seed: { type: 'string', default: '1' },
      only: { type: 'string' },
      keep: { type: 'string' }
    }
  });
  const names = Object.keys(READERS).filter((name) => !values.only || name === values.only);
  const each = (Number(values.minutes) * 60_000) / names.length;
  let isBroken = false;
  for (const reader of names) {
    const end = performance.now() + each;
    let [seed, count, slowest] = [Number(values.seed) * 1_000_000, 0, 0];
    const base = await begin(reader, 4_096).then(({ worker, base }) => {
      worker.kill('SIGKILL');
      return base;
    });
    // Young objects have room of their own; what is over the limit ends the worker.
    let running = await begin(reader, base + MEGABYTES);
    while (performance.now() < end) {
      const tried = await ask(running.worker, seed);
      const again =
        tried.seconds > SECONDS && tried.error === '' ? await ask(running.worker, seed) : tried;
      const seconds = Math.min(tried.seconds, again.seconds);
      slowest = Math.max(slowest, seconds);
      if (seconds > SECONDS || again.error) {
        isBroken = true;
        console.log(`${reader} ${seed}: ${again.error || `${seconds.toFixed(1)} s`}`);
        if (values.keep)
          writeFileSync(`${values.keep}/${reader}-${seed}.txt`, inputOf({ reader, seed }));
      }
      if (again.error.startsWith('Ended')) {
        running.worker.kill('SIGKILL');
        running = await begin(reader, base + MEGABYTES);
      }
      seed++;
      count++;
    }
    running.worker.kill('SIGKILL');
    console.log(
      `${reader}: ${count} inputs, slowest ${slowest.toFixed(2)} s, ${base} MB before them`
    );
  }
  return isBroken;
}

async function begin(reader: string, megabytes: number) {
  const worker = fork(fileURLToPath(import.meta.url), ['of', reader], {
    execArgv: [...process.execArgv, `--max-old-space-size=${megabytes}`],
    stdio: ['ignore', 'ignore', 'ignore', 'ipc']
  });
  const base = await new Promise<number>((done, fail) => {
    worker.once('message', done);
    worker.once('exit', (code) => fail(new Error(`It ended with ${code} before it began.`)));
  });
  worker.removeAllListeners('exit');
  return { worker, base };
}

function ask(worker: ChildProcess, seed: number): Promise<Tried> {
  return new Promise((done) => {
    const end = (tried: Tried) => {
      clearTimeout(timer);
      worker.off('message', end);
      worker.off('exit', fail);
      done(tried);
    };
    const fail = (why: unknown) =>
      end({ seed, seconds: 0, error: `Ended: ${typeof why === 'string' ? why : 'out of memory'}` });
    const timer = setTimeout(() => fail(`over ${HANGS} s`), HANGS * 1_000);
    worker.once('message', end);
    worker.once('exit', fail);
    worker.send(seed);
  });
}
