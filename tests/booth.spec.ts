import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { parseWebVtt } from '../src/lib/core/captions/webvtt.ts';
import { deleteIt, expect, idle, openBooth, row, exportFromBooth, test, within } from './app.ts';
import { frameTimes, loudness, makeMedia, probe, soundStarts } from './media.ts';

const COSTS = 'What a woven metre costs, and why';
const COLOUR = 'A colour plan for winter scarves';
const FLAX = 'A day in the flax field';

let folder = '';
test.beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'booth-'));
});
test.afterAll(() => rm(folder, { recursive: true }));

const made = (page: Page) => page.getByText(/^Made:/);

const takeOut = (page: Page, name: string, as: string) =>
  exportFromBooth(page, name, join(folder, as));
/** Half a minute of it, which is quicker to test with. */
async function shorten(page: Page, to = '30 s'): Promise<void> {
  await page.getByRole('radio', { name: to }).check();
  await expect(page.getByText('The whole post would take about')).toBeVisible();
  await idle(page);
}

test('from a post to a video that plays at the channel, the upload cut twice and the host restarted', async ({
  home: page,
  world,
  context
}) => {
  await expect(row(page, COSTS)).toHaveAccessibleName(/No video yet/);
  await row(page, COSTS).getByRole('link', { name: 'Make the video' }).click();
  await expect(page.getByRole('heading', { level: 1, name: COSTS })).toBeVisible();
  await expect(
    page.getByRole('list', { name: 'Script by scene' }).getByRole('listitem').first()
  ).toContainText(COSTS);
  await page.getByRole('button', { name: 'Render the video' }).click();
  await expect(made(page)).toBeVisible(within(120));

  await world.faults({ cutUploads: '2' });
  await page.getByLabel('Visibility').selectOption('public');
  await page.getByRole('button', { name: 'Publish now' }).click();
  await expect.poll(() => world.cutsLeft()).toBeLessThan(2);
  await world.restart();
  await expect(page.getByText('Wrenfold Loomworks: Published.')).toBeVisible(within(120));
  expect(await world.cutsLeft()).toBe(0);
  await idle(page);

  const uploads = await world.uploads();
  expect(uploads.map((u) => u.name?.[0])).toEqual([COSTS]);

  // The page people watch: the film, its captions and its chapters.
  const watch = await context.newPage();
  const address = await page.getByRole('link', { name: 'View video' }).getAttribute('href');
  await watch.goto(address ?? '');
  await expect(watch.getByRole('heading', { level: 1, name: COSTS })).toBeVisible();
  await expect(watch.getByRole('link', { name: '0:00' })).toBeVisible();
  const film = watch.locator('video');
  await film.evaluate(async (v: HTMLVideoElement) => {
    v.muted = true;
    await v.play();
  });
  await expect
    .poll(() => film.evaluate((v: HTMLVideoElement) => v.currentTime))
    .toBeGreaterThan(0.5);
  expect(
    await film.evaluate(async (v: HTMLVideoElement) => {
      const track = v.textTracks[0];
      if (!track) return 0;
      track.mode = 'showing';
      for (let i = 0; i < 100 && !track.cues?.length; i++)
        await new Promise((r) => setTimeout(r, 50));
      return track.cues?.length ?? 0;
    })
  ).toBeGreaterThan(5);
  await watch.close();

  // Tied in the home view, and shown by its post.
  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await expect(row(page, COSTS)).toHaveAccessibleName(/: In step/);
  await expect(row(page, COSTS).getByText('made here')).toBeVisible();
  // The post as it stands now, with its video, is being read.
  await idle(page);
  await row(page, COSTS).focus();
  await page.keyboard.press('v');
  await expect(page.getByText('The post has changed since')).toBeVisible();

  // Undo takes it away at the channel.
  await deleteIt(page, 'video');
  await expect.poll(() => world.uploads()).toHaveLength(0);
});

test('the file is what was planned: streams, length, frames, loudness, captions in time', async ({
  home: page
}) => {
  await openBooth(page, FLAX);
  // Long enough for chapters.
  await shorten(page, '1 min');
  await page.getByRole('radio', { name: 'Calm, nothing moves' }).check();
  await idle(page);
  await page.getByRole('button', { name: 'Render the video' }).click();
  await expect(made(page)).toBeVisible(within(120));
  const path = await takeOut(page, 'Video file', 'flax.webm');
  const planned = Number(
    await page.getByRole('slider', { name: 'Place in the video' }).getAttribute('max')
  );
  const { streams, duration, tags, chapters } = probe(path);
  expect(streams.map((s) => s.codec_name).sort()).toEqual(['opus', 'vp9']);
  expect(streams.find((s) => s.codec_type === 'video')).toMatchObject({ width: 1280, height: 720 });
  expect(Math.abs(duration - planned)).toBeLessThan(0.05);
  expect(chapters[0]).toEqual([0, FLAX]);
  // The headings that begin ten seconds after the one before, as hosts want chapters.
  expect(chapters.length).toBeGreaterThanOrEqual(3);
  for (const [i, [start, title]] of chapters.entries()) {
    if (i === 0) continue;
    expect(['Pulled, not cut', 'Retting', 'Breaking and hackling']).toContain(title);
    expect(start - (chapters[i - 1]?.[0] ?? 0)).toBeGreaterThanOrEqual(9.99);
  }
  expect(Object.values(tags).join(' ')).toContain('/blog/posts/a-day-in-the-flax-field');
  const { lufs, peak } = loudness(path);
  expect(Math.abs(lufs + 16)).toBeLessThan(1);
  expect(peak).toBeLessThanOrEqual(-1);

  // Each caption that opens a sentence stands within 80 ms of where its sound begins.
  const { cues } = parseWebVtt(
    await readFile(await takeOut(page, 'Captions (WebVTT)', 'flax.vtt'), 'utf8')
  );
  const starts = soundStarts(path);
  let sentence = true;
  for (const cue of cues) {
    const nearest = Math.min(...starts.map((s) => Math.abs(s - cue.start)));
    if (sentence) expect(nearest, `“${cue.text}” at ${cue.start}`).toBeLessThan(0.08);
    sentence = /[.!?]$/.test(cue.text);
  }

  // A frame wherever the picture changes: at least at every scene.
  const scenes = await page
    .getByRole('list', { name: 'Script by scene' })
    .getByRole('listitem')
    .allInnerTexts();
  const frames = frameTimes(path);
  for (const text of scenes) {
    const [, minutes, seconds] = /^(\d+):(\d+)/.exec(text) ?? [];
    const at = Number(minutes) * 60 + Number(seconds);
    expect(
      frames.some((f) => Math.floor(f + 1e-6) === at),
      `a frame in second ${at}`
    ).toBe(true);
  }
  // Where nothing changes there is none.
  expect(frames.length).toBeLessThan(planned * 2);

  const zip = await readFile(await takeOut(page, 'ZIP of all', 'flax.zip'));
  for (const part of ['.webm', '.vtt', '.png', '.txt', '.wav'])
    expect(zip.includes(Buffer.from(`a-day-in-the-flax-field${part}`))).toBe(true);
});

test('upright, with a clip in front and music beneath, as MP4', async ({ home: page }) => {
  const clip = join(folder, 'opening.mp4');
  makeMedia(
    clip,
    '-f',
    'lavfi',
    '-i',
    'testsrc=s=320x240:r=25:d=2',
    '-f',
    'lavfi',
    '-i',
    'sine=500:d=2:r=44100',
    '-c:v',
    'libx264',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'libopus'
  );
  const music = join(folder, 'music.wav');
  makeMedia(music, '-f', 'lavfi', '-i', 'sine=220:d=5:r=22050', '-ac', '2');
  await openBooth(page, FLAX);
  await shorten(page);
  await page.getByText('Upright', { exact: true }).click();
  await page.getByLabel('for: Clip in front').setInputFiles(clip);
  await expect(page.getByText('opening.mp4, 2 s')).toBeVisible();
  await page.getByLabel('for: Music beneath').setInputFiles(music);
  await expect(page.getByText('music.wav, 5 s')).toBeVisible();
  await page.getByRole('radio', { name: 'MP4' }).check();
  await page.getByRole('radio', { name: '1080 × 1920' }).check();
  await expect(page.getByText('Its sound is Opus. This browser cannot write AAC')).toBeVisible();
  await idle(page);
  await page.getByRole('button', { name: 'Render the video' }).click();
  await expect(made(page)).toBeVisible(within(120));
  const planned = Number(
    await page.getByRole('slider', { name: 'Place in the video' }).getAttribute('max')
  );
  const path = await takeOut(page, 'Video file', 'upright.mp4');
  const { streams, duration } = probe(path);
  expect(streams.find((s) => s.codec_type === 'video')).toMatchObject({
    codec_name: 'h264',
    width: 1080,
    height: 1920
  });
  expect(streams.find((s) => s.codec_type === 'audio')?.codec_name).toBe('opus');
  await expect(made(page)).toContainText('1080 × 1920, sound in Opus');
  expect(Math.abs(duration - planned)).toBeLessThan(0.1);
  const { lufs, peak } = loudness(path);
  expect(Math.abs(lufs + 16)).toBeLessThan(1);
  expect(peak).toBeLessThanOrEqual(-1);
});

test('a render that is stopped, or whose page is closed, goes on from what is finished', async ({
  home: page
}) => {
  await openBooth(page, COLOUR);
  await page.getByRole('button', { name: 'Render the video' }).click();
  await page.getByRole('button', { name: /^Stop: Rendering/ }).click();
  await expect(page.getByText('Stopped. Finished parts are kept.')).toBeVisible();
  await page.getByRole('button', { name: 'Continue rendering' }).click();
  await expect(page.getByText('Rendering… The deck')).toBeVisible();
  await page.reload();
  await expect(made(page)).toBeVisible(within(120));
});

test('scenes are changed by hand, kept, heard anew, and had back by undo', async ({
  home: page
}) => {
  await openBooth(page, COLOUR);
  const scenes = page.getByRole('list', { name: 'Script by scene' }).getByRole('listitem');
  const before = await scenes.count();
  await scenes.nth(2).getByRole('button').first().click();
  const shown = page.getByLabel('Line 1, as it is written');
  await shown.fill('We made 3 rules in 2026.');
  await shown.blur();
  await expect(page.getByLabel('Line 1, as it is said')).toHaveValue(
    'We made three rules in twenty twenty-six.'
  );
  await expect(scenes.nth(2)).toContainText('We made 3 rules in 2026.');
  await page.getByRole('button', { name: 'Join to the one before' }).click();
  await expect(scenes).toHaveCount(before - 1);
  await page.getByRole('button', { name: 'Split' }).click();
  await expect(scenes).toHaveCount(before);
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(scenes).toHaveCount(before - 1);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(scenes).toHaveCount(before);
  await expect(page.getByText('Changed by hand.')).toBeVisible();
  await idle(page);
  await page.waitForTimeout(600);
  await page.reload();
  await expect(scenes).toHaveCount(before);
  await expect(page.getByText('We made 3 rules in 2026.').first()).toBeVisible();
  await page.getByRole('button', { name: 'Regenerate the scenes' }).click();
  await expect(page.getByText('We made 3 rules in 2026.')).toHaveCount(0);

  // The preview plays and moves through the scenes.
  await idle(page);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect
    .poll(async () =>
      Number(await page.getByRole('slider', { name: 'Place in the video' }).inputValue())
    )
    .toBeGreaterThan(1);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
});

test('a scene of one line is split, one is added, and what a cut left out is put back', async ({
  home: page
}) => {
  await openBooth(page, COLOUR);
  const scenes = page.getByRole('list', { name: 'Script by scene' }).getByRole('listitem');
  await scenes.nth(4).getByRole('button').first().click();
  const before = await scenes.count();
  const shown = page.getByLabel('Line 1, as it is written');
  await expect(shown).toHaveValue(/^The rule is three parts dark, two parts light/);
  await page.getByRole('button', { name: 'Split' }).click();
  await expect(scenes).toHaveCount(before + 1);
  await expect(scenes.nth(4)).toContainText('The rule is three parts dark,');
  await expect(scenes.nth(5)).toContainText('two parts light and one thread of something loud.');
  await page.getByRole('button', { name: 'Add a scene' }).click();
  await expect(shown).toHaveValue('New sentence');
  await shown.fill('We keep 2 spare cones.');
  await expect(page.getByLabel('Line 1, as it is said')).toHaveValue('We keep two spare cones.');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(scenes).toHaveCount(before + 1);

  await page.getByRole('radio', { name: '30 s' }).check();
  await page.getByText(/passages? (?:is|are) left out$/).click();
  const cut = await scenes.count();
  await page
    .getByRole('button', { name: /^Put back after this scene/ })
    .first()
    .click();
  await expect(scenes).toHaveCount(cut + 1);
});

test('a picture and a recording of one’s own take the place of words and voice', async ({
  home: page
}) => {
  await openBooth(page, FLAX);
  await shorten(page);
  const scenes = page.getByRole('list', { name: 'Script by scene' }).getByRole('listitem');
  const words = scenes.filter({ hasText: 'Statement' }).first();
  await words.getByRole('button').first().click();
  const picture = join(folder, 'field.png');
  makeMedia(picture, '-f', 'lavfi', '-i', 'testsrc=s=640x480:d=1', '-frames:v', '1');
  await page.getByLabel('Add a picture').setInputFiles(picture);
  await expect(page.getByLabel('What it shows')).toHaveValue('field');
  await page.getByRole('radio', { name: 'Filling the frame, slowly moved' }).check();
  const voice = join(folder, 'mine.wav');
  makeMedia(voice, '-f', 'lavfi', '-i', 'sine=330:d=7:r=44100');
  await page.getByLabel('Import a recording', { exact: true }).setInputFiles(voice);
  await expect(page.getByText('Your own recording plays instead of the voice.')).toBeVisible();
  await idle(page);
  await page.getByRole('button', { name: 'Render the video' }).click();
  await expect(made(page)).toBeVisible(within(120));
  const path = await takeOut(page, 'Video file', 'mine.webm');
  // A picture that moves has its frames, 24 a second for seven seconds.
  expect(frameTimes(path).length).toBeGreaterThan(160);
  const scene = page.getByRole('region', { name: /^Scene/ });
  await scene.getByRole('button', { name: 'Use the voice again' }).click();
  await page.getByRole('button', { name: 'Without the picture' }).click();
  await expect(page.getByLabel('What it shows')).toHaveCount(0);
});

test('a post that has a video file of its own gives that very file to the channel', async ({
  home: page,
  world,
  app
}) => {
  const files = ['hemstitching', 'sleying-a-reed'].map(
    (id) => `${app.hosts}/channel/videos/${id}/clip.webm`
  );
  await world.addToPost(COSTS, `<video controls src="${files[0]}"></video>`);
  await world.addToPost(COSTS, `<video><source src="${files[1]}" type="video/webm"></video>`);
  await world.addToPost(COSTS, '<a href="https://elsewhere.example/theirs.mp4">Theirs</a>');
  await page.getByRole('button', { name: 'Refresh' }).click();
  await idle(page);
  await openBooth(page, COSTS);
  const render = page.getByRole('region', { name: 'Render' });
  await expect(render.getByText('This post has 3 video files of its own.')).toBeVisible();
  // Of a file at another site the user has to say that it is theirs.
  await render.getByRole('radio', { name: 'theirs.mp4' }).check();
  await expect(render.getByRole('button', { name: 'Use this file' })).toBeDisabled();
  await render.getByRole('checkbox', { name: /^It lies at elsewhere.example/ }).check();
  await render.getByRole('button', { name: 'Use this file' }).click();
  await expect(render.getByRole('alert')).toBeVisible();
  await render.getByRole('radio').first().check();
  await render.getByRole('button', { name: 'Use this file' }).click();
  await expect(render.getByText(/^The post’s own video:/)).toBeVisible();
  const whole = await (await fetch(files[0]!)).arrayBuffer();
  const path = await takeOut(page, 'Video file', 'theirs.webm');
  expect(Buffer.compare(await readFile(path), Buffer.from(whole))).toBe(0);

  await page.getByLabel('Visibility').selectOption('public');
  await page.getByRole('button', { name: 'Publish now' }).click();
  await expect(page.getByText('Wrenfold Loomworks: Published.')).toBeVisible(within(60));
  expect((await world.uploads()).map((u) => u.name?.[0])).toEqual([COSTS]);
});

test('a stretch without a picture is filled from pictures and videos of one’s own', async ({
  home: page
}) => {
  await openBooth(page, COSTS);
  const library = page.getByRole('region', { name: 'Your pictures' });
  const picture = join(folder, 'warp-and-yarn-of-a-metre.png');
  makeMedia(picture, '-f', 'lavfi', '-i', 'testsrc=s=640x480:d=1', '-frames:v', '1');
  const clip = join(folder, 'dye-bath.webm');
  makeMedia(clip, '-f', 'lavfi', '-i', 'testsrc2=s=320x180:d=2', '-c:v', 'libvpx-vp9');
  const broken = join(folder, 'notes.png');
  await writeFile(broken, 'no picture');
  await library.getByLabel('Add files').setInputFiles([picture, clip, broken]);
  await expect(library.getByRole('status')).toContainText('2 files were added.');
  await expect(library.getByRole('status')).toContainText('notes.png');
  // Four frames of the clip.
  await expect(library.getByRole('listitem')).toHaveCount(5);
  await library.getByLabel('Find in your pictures').fill('warp metre');
  await expect(library.getByRole('listitem')).toHaveCount(1);
  const gaps = page.getByRole('button', { name: /seconds without a picture/ });
  await expect(gaps).not.toHaveCount(0);
  const before = await gaps.count();
  await gaps.first().click();
  const proposals = page.getByRole('region', { name: 'Pictures for this scene' });
  await expect(proposals.getByRole('button')).toHaveCount(3);
  await expect(proposals).toContainText('Thumbnail');
  await proposals.getByRole('button', { name: 'Your picture' }).first().click();
  await expect(page.getByLabel('What it shows').first()).toHaveValue('warp and yarn of a metre');
  await expect(page.getByLabel('Kind of scene')).toHaveValue('beside');
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect(page.getByLabel('Kind of scene')).not.toHaveValue('beside');
  // All of them at once.
  await expect(gaps).toHaveCount(before);
  await page.getByRole('button', { name: 'Add the best of your pictures' }).click();
  await expect(page.getByText(/pictures? (was|were) added/)).toBeVisible();
  await expect.poll(() => gaps.count()).toBeLessThan(before);
});

test('style, motion, typeface, words on screen, music and sounds are the user’s', async ({
  home: page
}) => {
  await openBooth(page, FLAX);
  await shorten(page);
  const scenes = page.getByRole('list', { name: 'Script by scene' }).getByRole('listitem');
  // A figure is shown as a number with its unit; it may be a statement instead, in words of one's own.
  await scenes.filter({ hasText: 'Figure' }).first().getByRole('button').first().click();
  await expect(page.getByLabel('Number 1 on screen')).toHaveValue(/\d|ten|three/i);
  await page.getByLabel('Kind of scene').selectOption('Statement');
  await page.getByLabel('Words 1 on screen').fill('Straw and line');
  await page.getByLabel('Keep in shorter cuts').check();
  await expect(page.getByText('Changed by hand.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await page.getByRole('button', { name: 'Redo', exact: true }).click();
  await expect(page.getByLabel('Words 1 on screen')).toHaveValue('Straw and line');

  await page.getByLabel('Cards Woven').selectOption('Fine line');
  await page.getByLabel('Light up words as they are said').check();
  await page.getByLabel('Speaker’s name').fill('Isolde Wrenfold');
  const font = createRequire(import.meta.url).resolve(
    '@fontsource-variable/literata/files/literata-latin-wght-normal.woff2'
  );
  const wrong = join(folder, 'none.woff2');
  await writeFile(wrong, 'no font');
  await page.getByLabel('Your typeface').setInputFiles(wrong);
  await expect(page.getByText('“none.woff2” is no font file that can be read.')).toBeVisible();
  await page.getByLabel('Your typeface').setInputFiles(font);
  await expect(page.getByRole('button', { name: 'Remove the typeface' })).toBeVisible();
  await page.getByRole('button', { name: 'Quiet music' }).click();
  await expect(page.getByText('Quiet, 32 s')).toBeVisible();
  await page.getByLabel('Short sounds as scenes change').check();
  await idle(page);

  const words = await readFile(
    await takeOut(page, 'Captions with word times', 'words.vtt'),
    'utf8'
  );
  expect(words).toMatch(/in <00:00:\d\d\.\d{3}>the <00:00:\d\d\.\d{3}>morning/);
  await page.getByRole('button', { name: 'Render the video' }).click();
  await expect(made(page)).toBeVisible(within(120));
  const path = await takeOut(page, 'Video file', 'styled.webm');
  const { duration } = probe(path);
  // The length that was asked for, within five in a hundred; moves and lights have their frames.
  expect(Math.abs(duration - 30)).toBeLessThan(1.5);
  const moving = frameTimes(path).length;
  expect(moving).toBeGreaterThan(duration * 5);
  expect(Math.abs(loudness(path).lufs + 16)).toBeLessThan(1);
  await page.getByRole('radio', { name: 'Calm, nothing moves' }).check();
  await page.getByLabel('Light up words as they are said').uncheck();
  await idle(page);
  await page.getByRole('button', { name: /^Render / }).click();
  await expect(made(page)).toBeVisible(within(120));
  const calm = frameTimes(await takeOut(page, 'Video file', 'calm.webm')).length;
  expect(calm).toBeLessThan(duration * 2);
});

test('what cannot be said, shown or read is reported, and nothing is lost', async ({
  home: page
}) => {
  // The picture of this post cannot be had.
  await page.route(/api\/read.*madder-with-juna/, (route) => route.abort());
  await openBooth(page, COLOUR);
  const scenes = page.getByRole('list', { name: 'Script by scene' }).getByRole('listitem');
  await scenes.filter({ hasText: 'no picture' }).getByRole('button').first().click();
  await expect(page.getByText('This picture cannot be had:')).toBeVisible();

  // A script that this voice has no sounds for.
  await scenes.nth(1).getByRole('button').first().click();
  const shown = page.getByLabel('Line 1, as it is written');
  await shown.fill('経糸を巻く');
  await shown.blur();
  await expect(page.getByText('This voice has no sounds for this script.').first()).toBeVisible();
  await expect(scenes.nth(1)).toContainText('no voice');

  // Files that are no media, and a codec that no browser decodes.
  const text = join(folder, 'notes.mp4');
  await writeFile(text, 'This is no film.');
  await page.getByLabel('for: Clip in front').setInputFiles(text);
  await expect(
    page.getByText('“notes.mp4” is no sound or video file that can be read.')
  ).toBeVisible();
  const odd = join(folder, 'odd.mkv');
  makeMedia(odd, '-f', 'lavfi', '-i', 'testsrc=s=320x240:r=25:d=1', '-c:v', 'mpeg2video');
  await page.getByLabel('for: Clip in front').setInputFiles(odd);
  await expect(
    page.getByText(/This browser cannot decode “odd.mkv”|“odd.mkv” is no sound or video file/)
  ).toBeVisible();

  // All the same a video comes of it.
  await shorten(page);
  await page.getByRole('button', { name: 'Render the video' }).click();
  await expect(made(page)).toBeVisible(within(120));
});

test('a full disk is reported, and what is finished is kept', async ({ home: page, app }) => {
  await openBooth(page, FLAX);
  await shorten(page);
  const devtools = await page.context().newCDPSession(page);
  const { usage } = await devtools.send('Storage.getUsageAndQuota', { origin: app.origin });
  await devtools.send('Storage.overrideQuotaForOrigin', {
    origin: app.origin,
    quotaSize: Math.ceil(usage) + 20_000
  });
  await page.getByRole('button', { name: 'Render the video' }).click();
  await expect(page.getByText('There is no room left in the browser’s storage.')).toBeVisible(
    within(60)
  );
  await devtools.send('Storage.overrideQuotaForOrigin', { origin: app.origin });
  await page.getByRole('button', { name: 'Render the video' }).click();
  await expect(made(page)).toBeVisible(within(120));
});

test('a browser without WebCodecs says so, and gives script, captions and sound all the same', async ({
  home: page
}) => {
  // As such a browser is: the worker that encodes finds no encoders.
  await page.route(/video\.worker/, async (route) => {
    const answer = await route.fetch();
    const body = `delete self.VideoEncoder; delete self.AudioEncoder;\n${await answer.text()}`;
    await route.fulfill({ response: answer, body });
  });
  await openBooth(page, FLAX);
  await expect(page.getByText('This browser cannot encode video.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Render the video' })).toBeDisabled();
  const script = await readFile(await takeOut(page, 'Script text', 'alone.txt'), 'utf8');
  expect(script).toContain('eight hundred grams');
  await takeOut(page, 'Captions (WebVTT)', 'alone.vtt');
  expect(probe(await takeOut(page, 'Sound (WAV)', 'alone.wav')).duration).toBeGreaterThan(60);
});
