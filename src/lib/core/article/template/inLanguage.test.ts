import assert from 'node:assert/strict';
import { test } from 'node:test';
import { defaultTemplate } from './template.ts';
import { inLanguage } from './inLanguage.ts';

const block = (kind: string) => defaultTemplate.blocks.find((b) => b.kind === kind)!;

test('what a layout begins with is said in the language of the video', () => {
  assert.equal(inLanguage(block('takeaways'), 'de-AT').heading, 'Kurz gesagt');
  assert.equal(inLanguage(block('transcript'), 'de').heading, 'Transkript');
  assert.match(inLanguage(block('closing'), 'de').text, /Kanal ansehen/);
  assert.equal(inLanguage(block('chapters'), 'en').heading, 'In this video');
});

test('what the user wrote stays, and so does a language without words of its own', () => {
  const own = { ...block('takeaways'), heading: 'My points' };
  assert.equal(inLanguage(own, 'de').heading, 'My points');
  assert.equal(inLanguage(block('takeaways'), 'fi').heading, 'In short');
  assert.equal(inLanguage(block('lead'), 'de').text, block('lead').text);
});

test('a heading that layouts of before had is the one of today', () => {
  const former = { ...block('transcript'), heading: 'What is said, word for word' };
  assert.equal(inLanguage(former, 'en').heading, 'Transcript');
});
