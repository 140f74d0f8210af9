/**
 * Learns the model of sentences without each part of the unscripted talks, for measuring on what was
 * held out: `npm run train:folds`, about an hour, into node_modules/.cache/speech.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync } from 'node:fs';

const FOLDER = 'node_modules/.cache/speech';
const FOLDS = 4;
const learn = (file: string, env: Record<string, string>): void => {
  if (existsSync(file)) return;
  execFileSync(process.execPath, ['--import', 'tsx', 'bin/train/sentences.ts'], {
    env: { ...process.env, ...env, OUT: file },
    stdio: 'inherit'
  });
};
mkdirSync(FOLDER, { recursive: true });
const base = `${FOLDER}/base.json`;
learn(base, { TALK_EPOCHS: '0', HOLD: '0/1' });
for (let n = 0; n < FOLDS; n++)
  learn(`${FOLDER}/fold-${n}.json`, { START: base, HOLD: `${n}/${FOLDS}` });
