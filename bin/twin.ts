/** The command line over the core. Bad input: one line on standard error, exit status 2. */
import { readFileSync } from 'node:fs';
import { runTwin } from './commands.ts';

const { status, out, err } = await runTwin(process.argv.slice(2), () => readFileSync(0));
process.stdout.write(out);
process.stderr.write(err);
process.exitCode = status;
