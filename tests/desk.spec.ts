import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, idle, openDesk, row, test } from './app.ts';

const TWILL = 'Threading a four-shaft twill, slowly';
const SILENT = 'Three minutes of quiet weaving';
const text = (page: Page) => page.getByRole('textbox', { name: 'Text of the post' });
const transcript = (page: Page) => page.getByRole('region', { name: 'Transcript' });

test('a paragraph lights up its sentences and plays; a sentence tells where it went', async ({
  home: page
}) => {
  await openDesk(page, TWILL);
  const paragraph = text(page).getByText('Put the hook through the eye').first();
  await paragraph.hover();
  const sentence = transcript(page).getByRole('button', {
    name: /^Put the hook through the eye.* In the article$/
  });
  await expect(sentence).toHaveClass(/lit/);
  await page.getByRole('button', { name: /^Play these seconds/ }).click();
  const video = page.getByRole('contentinfo').locator('video');
  await expect
    .poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime))
    .toBeGreaterThan(140);

  const greeting = transcript(page).getByRole('button', { name: /^Welcome to the studio/ });
  await greeting.hover();
  await expect(page.getByText('Left out: a greeting or goodbye.')).toBeVisible();
  await sentence.focus();
  await expect(page.getByText('In the article.', { exact: true })).toBeVisible();
  await expect(text(page).locator('.lit').first()).toContainText('Put the hook through the eye');
  await page.keyboard.press('ArrowDown');
  await expect(
    transcript(page).getByRole('button', { name: /^Second heddle, second thread/ })
  ).toBeFocused();
});

test('a sentence that was left out is kept, another is dropped, and both stay so', async ({
  home: page
}) => {
  await openDesk(page, TWILL);
  const greeting = transcript(page).getByRole('button', { name: /^Welcome to the studio/ });
  await greeting.focus();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('In the article: you kept it.')).toBeVisible();
  // In the article now, beside the transcript below it.
  const inText = (words: string) => text(page).getByText(words);
  await expect(inText('Welcome to the studio')).toHaveCount(2);

  const hook = transcript(page).getByRole('button', { name: /^Put the hook through the eye/ });
  await hook.focus();
  await page.getByRole('button', { name: 'Drop', exact: true }).click();
  await expect(page.getByText('Left out: you dropped it.')).toBeVisible();
  await expect(inText('Put the hook through the eye')).toHaveCount(1);

  // As long as saving takes.
  await page.waitForTimeout(2_000);
  await page.reload();
  await expect(inText('Welcome to the studio')).toHaveCount(2);
  await expect(inText('Put the hook through the eye')).toHaveCount(1);
  await hook.focus();
  await page.getByRole('button', { name: 'Undo drop' }).click();
  await expect(inText('Put the hook through the eye')).toHaveCount(2);
});

test('hand edits stay when the text is made anew, and changes are taken piece by piece', async ({
  home: page,
  world,
  context
}) => {
  await openDesk(page, TWILL);
  const lead = text(page).getByText('A straight draw from the first heddle').first();
  await lead.click();
  await page.keyboard.press('End');
  // All at once: what is typed slowly is undone in several steps.
  await page.keyboard.insertText(' Bring tea.');
  await expect(page.getByText('Edited by hand.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Edited by hand.')).toBeHidden();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(text(page)).toContainText('Bring tea.');

  await page.getByText('Length of the article:').click();
  await page.getByRole('radio', { name: /^Short/ }).check();
  await page.getByRole('button', { name: 'Review the changes' }).click();
  const dialog = page.getByRole('dialog', { name: 'What regenerating the text would change' });
  await expect(dialog.locator('del').first()).toBeVisible();
  await dialog.getByRole('button', { name: 'Leave my text as it is' }).click();
  await expect(text(page)).toContainText('Bring tea.');

  // The lead-in changes just where it was edited: that is told, and not taken unasked.
  await page.getByText('Layout', { exact: true }).click();
  await page.getByRole('textbox', { name: 'Wording of lead-in' }).fill('A new lead-in.');
  await page.getByRole('button', { name: 'Review the changes' }).click();
  const touched = dialog.getByRole('checkbox', { name: /it would replace what you wrote there/ });
  await expect(touched).not.toBeChecked();
  await dialog.getByRole('button', { name: 'Apply the ticked changes' }).click();
  await page.getByText('Write', { exact: true }).click();
  await expect(text(page)).toContainText('Bring tea.');
  await expect(text(page)).not.toContainText('A new lead-in.');

  await page.waitForTimeout(700);
  await page.reload();
  await expect(text(page)).toContainText('Bring tea.');
  await idle(page);
  await page.getByRole('radio', { name: 'Public, now' }).check();
  await page.getByRole('button', { name: 'Publish now' }).click();
  const link = page.getByRole('link', { name: 'View post' });
  await expect(link).toBeVisible();
  const post = await context.newPage();
  await post.goto((await link.getAttribute('href')) ?? '');
  await expect(post.getByText('Bring tea.')).toBeVisible();
  expect(await post.content()).not.toContain('data-start');
  expect(await world.posts(TWILL)).toBe(1);
  await post.close();

  // What was written outlives the placing.
  await page.getByRole('link', { name: 'In step', exact: true }).first().click();
  await expect(row(page, TWILL)).toHaveAccessibleName(/In step/);
  await openDesk(page, TWILL);
  await expect(text(page)).toContainText('Bring tea.');
  await page.getByRole('button', { name: 'Back to the generated text' }).click();
  await expect(text(page)).not.toContainText('Bring tea.');
});

test('the article is as long as it is asked to be, and stays so', async ({ home: page }) => {
  await openDesk(page, TWILL);
  const words = async () => ((await text(page).textContent()) ?? '').split(/\s+/).length;
  const medium = await words();
  await page.getByText('Length of the article:').click();
  const length = page.getByRole('slider', { name: 'Any length' });
  await expect(length).toHaveAttribute('aria-valuetext', /^\d+ % of what is said, about \d+ words/);
  await length.focus();
  await page.keyboard.press('Home');
  await expect(page.getByText(/^5 % of what is said: about \d+ words, /)).toBeVisible();
  // The word-for-word transcript beneath is not the article's.
  await expect.poll(words).toBeLessThan(medium - 200);
  const least = await words();
  await expect(page.getByRole('radio', { name: /^Medium/ })).not.toBeChecked();
  for (let press = 0; press < 6; press++) await page.keyboard.press('ArrowRight');
  await expect(page.getByText(/^35 % of what is said:/)).toBeVisible();
  await expect.poll(words).toBeGreaterThan(least + 100);

  // As long as saving takes.
  await page.waitForTimeout(2_000);
  await page.reload();
  await page.getByText('Length of the article:').click();
  await expect(length).toHaveValue('35');
});

test('writing begins at the first word and leaves the video where it is', async ({
  home: page
}) => {
  await openDesk(page, TWILL);
  const video = text(page).getByLabel('The video');
  await expect(video).toBeVisible();
  await text(page).evaluate((editor: HTMLElement) => editor.focus());
  await page.keyboard.type('Bring tea. ');
  await expect(text(page).locator('p').first()).toHaveText(/^Bring tea\. A straight draw/);
  await expect(video).toBeVisible();
});

test('the paragraph that holds the caret is marked, and the mark goes with the caret', async ({
  home: page
}) => {
  await openDesk(page, TWILL);
  const [one, other] = [
    text(page).locator('p[data-start]').nth(2),
    text(page).locator('h2').nth(3)
  ];
  const nothing = 'rgba(0, 0, 0, 0)';
  await expect(one).toHaveCSS('background-color', nothing);
  await one.click();
  await page.mouse.move(2, 2);
  await expect(one).not.toHaveCSS('background-color', nothing);
  await other.click();
  await expect(one).toHaveCSS('background-color', nothing);
});

test('chapters are named, moved, split and joined; finding them anew keeps what is mine', async ({
  home: page
}) => {
  await openDesk(page, TWILL);
  const list = page.getByRole('list', { name: 'Chapters' });
  await expect(list.getByRole('listitem')).toHaveCount(8);
  await page.getByRole('textbox', { name: 'Title of chapter 2' }).fill('My heddles');
  await page.keyboard.press('Enter');
  await expect(text(page).getByRole('heading', { name: 'My heddles' })).toBeVisible();
  await page.getByRole('slider', { name: 'Start of My heddles' }).press('ArrowRight');
  await expect(page.getByRole('textbox', { name: 'Start of chapter 2' })).toHaveValue('0:44');
  await page.getByRole('button', { name: /^Join “Sitting comfortably”/ }).click();
  await expect(list.getByRole('listitem')).toHaveCount(7);
  await transcript(page)
    .getByRole('button', { name: /^Put the hook through/ })
    .click();
  await page.getByRole('button', { name: 'Chapter here' }).click();
  await expect(list.getByRole('listitem')).toHaveCount(8);
  await page.getByRole('textbox', { name: 'Start of chapter 3' }).fill('soon');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“soon” is no time.')).toBeVisible();
  await page.getByRole('button', { name: 'Find chapters in the talk' }).click();
  await expect(page.getByRole('textbox', { name: /^Title of chapter/ }).nth(1)).toHaveValue(
    'My heddles'
  );
  await page.getByRole('button', { name: 'Take the channel’s' }).click();
  await expect(page.getByRole('textbox', { name: 'Title of chapter 2' })).toHaveValue(
    'Counting the heddles'
  );
});

test('captions are imported for a video that has none; bad ones are refused and lose nothing', async ({
  home: page
}) => {
  await openDesk(page, SILENT);
  await expect(page.getByText('This video has no captions').first()).toBeVisible();
  const paste = page.getByRole('textbox', { name: 'Or paste them' });
  const take = page.getByRole('button', { name: 'Use pasted text' });
  await paste.fill('WEBVTT\n\nno times here');
  await take.click();
  await expect(page.getByRole('alert')).toContainText('There is no text in the captions');
  await expect(paste).toHaveValue(/WEBVTT/);
  await paste.fill(
    '1\n00:00:01,000 --> 00:00:06,000\nThe shuttle flies over the warp and under it.\n\n2\n00:00:06,000 --> 00:00:12,000\nUm, the beater presses the weft against the cloth.\n\n3\n00:00:12,000 --> 00:00:18,000\nA firm beat makes a firm cloth for towels.\n'
  );
  await take.click();
  await expect(text(page)).toContainText('The beater presses the weft against the cloth.');
  await page.reload();
  await expect(text(page)).toContainText('A firm beat makes a firm cloth');
  await page.getByText('Import captions').click();
  await page.getByRole('button', { name: 'Use the channel’s captions' }).click();
  await expect(text(page)).not.toContainText('A firm beat');
});

test('rough captions become sentences, and it is said what was mended', async ({ home: page }) => {
  await openDesk(page, 'Straight selvedges: five things that helped');
  await page.getByText(/sentences restored/).click();
  await expect(page.getByText(/lines shown again, said once/)).toBeVisible();
  await expect(page.getByText(/\d+ fillers? \(first at/)).toBeVisible();
  const words = transcript(page).getByRole('button', { name: /\bum\b/ });
  await expect(words).toHaveCount(0);
  await page.getByRole('checkbox', { name: 'Fillers: um, uh, er' }).uncheck();
  await expect(words).not.toHaveCount(0);
  await page.getByRole('searchbox', { name: 'Search in the transcript' }).fill('selvedge');
  await expect(transcript(page).getByRole('status')).toHaveText(/^1 of \d+$/);
});

test('the text is looked through while it is written, and findings lead to their places', async ({
  home: page
}) => {
  await openDesk(page, TWILL);
  const found = page.getByRole('list', { name: 'What stands out' });
  await text(page).getByText('A straight draw from the first heddle').first().click();
  await page.keyboard.press('End');
  await page.keyboard.type(
    ' Go ahead and be marvellous, marvellous, marvellous, marvellous, marvellous, marvellous.'
  );
  const marvellous = found.getByRole('button', { name: /“marvellous” 6 times/ });
  await expect(marvellous).toBeVisible();
  // What is written on at once does not lead past the place.
  await page.keyboard.type(' And on.');
  await marvellous.click();
  expect(await page.evaluate(() => String(getSelection()))).toBe('marvellous');
  await expect(found.getByRole('button', { name: '“go ahead and” can go' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Search phrases' }).fill('straight draw');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/title 0, first 100 words \d/)).toBeVisible();
});

test('titles are proposed within their limits and taken with a click', async ({ home: page }) => {
  await openDesk(page, TWILL);
  await page.getByText('Titles from the talk').click();
  const short = page.getByRole('group', { name: 'At most 60 characters' }).getByRole('button');
  await expect(short).toHaveCount(5);
  const title = ((await short.nth(1).textContent()) ?? '').replace(/\s*\d+$/, '').trim();
  await short.nth(1).click();
  await expect(page.getByRole('textbox', { name: 'Title', exact: true })).toHaveValue(title);
  await page.getByRole('button', { name: 'Use this excerpt' }).click();
  await expect(page.getByRole('textbox', { name: 'Excerpt' })).toHaveValue(
    /^Today we thread .*\.$/
  );
});

test('everything can be exported as files', async ({ home: page }) => {
  await openDesk(page, TWILL);
  await page.getByText('Export').click();
  const take = async (name: string) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name, exact: true }).click()
    ]);
    return readFile(await file.path(), 'utf8');
  };
  const markdown = await take('Markdown file');
  expect(markdown).toMatch(/^---\ntitle: Threading a four-shaft twill, slowly\nslug: threading/);
  expect(markdown).toMatch(/\n## Counting the heddles\n/);
  expect(await take('HTML file')).toContain('<iframe');
  expect(await take('WebVTT file')).toMatch(/^WEBVTT\n\n00:00:00\.\d{3} --> /);
  expect(await take('SRT file')).toMatch(/^1\n00:00:00,\d{3} --> /);
  expect(JSON.parse(await take('JSON chapters')).chapters).toHaveLength(8);
  expect(await take('WebVTT chapters')).toContain('Counting the heddles');
});

test('reading aloud follows the word', async ({ home: page }) => {
  await openDesk(page, TWILL);
  await page.evaluate(() => {
    speechSynthesis.getVoices = () => [{ name: 'Test' } as SpeechSynthesisVoice];
    let isFirst = true;
    speechSynthesis.speak = (utterance) => {
      if (!isFirst) return;
      isFirst = false;
      utterance.onstart?.(new Event('start') as SpeechSynthesisEvent);
      const at = utterance.text.indexOf('straight');
      utterance.onboundary?.(
        Object.assign(new Event('boundary'), { charIndex: at }) as unknown as SpeechSynthesisEvent
      );
    };
  });
  await page.getByText('Write', { exact: true }).click();
  await page.getByRole('button', { name: 'Read aloud' }).click();
  const deck = page.getByRole('contentinfo', { name: 'Deck' });
  await expect(deck.locator('mark')).toHaveText('straight');
  await deck.getByRole('button', { name: 'Stop reading' }).click();
  await expect(deck.locator('mark')).toHaveCount(0);
});

test('figures that are compared stand in a table, which is edited like the text', async ({
  home: page
}) => {
  const title = 'Reading a weaving draft in six minutes';
  await page.keyboard.press('Control+k');
  await page.keyboard.type(title);
  await page.getByRole('option', { name: title }).first().click();
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
  await idle(page);
  const text = page.getByRole('textbox', { name: 'Text of the post' });
  const rows = text.getByRole('row');
  await expect(rows).toHaveText([
    'The small loomFour shafts',
    'The table loomEight shafts',
    'The floor loomTwelve shafts'
  ]);
  await expect(page.getByRole('button', { name: 'Add row' })).toBeHidden();
  await text.getByRole('cell', { name: 'Twelve shafts' }).click();
  await page.getByRole('button', { name: 'Add row' }).click();
  await expect(rows).toHaveCount(4);
  await page.keyboard.press('Tab');
  await page.keyboard.type('The rug loom');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Two shafts');
  await expect(rows.last()).toHaveText('The rug loomTwo shafts');
  await text.getByRole('cell', { name: 'Four shafts' }).click();
  await page.getByRole('button', { name: 'Delete row' }).click();
  await expect(rows).toHaveCount(3);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows.first()).toHaveText('The small loomFour shafts');
});
