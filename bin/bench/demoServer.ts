import { spawn } from 'node:child_process';

/** Starts the built application beside a world of its own. @param options as `bin/demo` has them */
export async function startDemo(
  world: string,
  options: readonly string[]
): Promise<{ app: string; hosts: string; stop: () => void }> {
  const args = ['build/bin/demo.js', '--port', '0', '--world', world, ...options];
  const child = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'inherit'] });
  let said = '';
  await new Promise<void>((ready) => {
    child.stdout.on('data', (data: Buffer) => {
      said += String(data);
      if (said.includes('Stop with')) ready();
    });
  });
  const address = (before: string) =>
    new RegExp(`${before} (http://[^/\\s]+)`).exec(said)?.[1] ?? '';
  return { app: address('Twin is at'), hosts: address('hosts are at'), stop: () => child.kill() };
}
