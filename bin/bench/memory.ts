import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';

/** The youngest browser that this process has begun. */
export function browserPid(): number {
  const children = execFileSync('pgrep', ['-f', 'remote-debugging-pipe'], { encoding: 'utf8' });
  return Math.min(...children.trim().split('\n').map(Number));
}

/**
 * Looks into /proc itself: a command that lists processes would take time from what is measured.
 * @returns ends the watch and tells the highest sum of what the processes hold, in bytes
 */
export function watchMemory(pid: number): () => number {
  let highest = 0;
  const look = () => {
    let sum = 0;
    for (const member of familyOf(pid)) sum += residentBytes(member);
    highest = Math.max(highest, sum);
  };
  const timer = setInterval(look, 200);
  return () => {
    clearInterval(timer);
    return highest;
  };
}

/** A process, those that any of its threads has begun, and theirs. */
function familyOf(pid: number): number[] {
  const children = threadsOf(pid).flatMap((thread) => {
    const told = readProc(`${pid}/task/${thread}/children`).trim();
    return told ? told.split(' ').map(Number) : [];
  });
  return [pid, ...children.flatMap(familyOf)];
}

function threadsOf(pid: number): string[] {
  try {
    return readdirSync(`/proc/${pid}/task`);
  } catch {
    return [];
  }
}

const PAGE_BYTES = 4096;
const residentBytes = (pid: number): number =>
  Number(readProc(`${pid}/statm`).split(' ')[1] ?? 0) * PAGE_BYTES;

/** Empty where the process has ended meanwhile. */
function readProc(name: string): string {
  try {
    return readFileSync(`/proc/${name}`, 'utf8');
  } catch {
    return '';
  }
}
