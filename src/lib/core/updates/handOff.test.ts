import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import PostalMime from 'postal-mime';
import { readMessage } from '../mail/message.ts';
import {
  addressIn,
  answerMessage,
  fromFragment,
  handOffMessage,
  toFragment,
  type HandOff
} from './handOff.ts';

const handOff: HandOff = {
  key: 'k',
  place: 'Board at the Mill Gate',
  placeUrl: 'https://board.example/',
  title: '',
  text: 'Flax <is> in & dry.',
  hashtags: '#flax',
  link: '',
  options: [],
  alt: '',
  file: { name: 'picture.png', url: '', id: 'own:1' },
  answer: {
    messages: 'https://mail.example/messages',
    address: 'studio@wrenfold.example',
    messageId: 'x1@swift-twin.invalid'
  }
};
const PAGE = 'https://twin.example/hand-off#abc';
const mailbox = { name: 'Letterbox', address: 'studio@wrenfold.example' };

test('a hand-off survives the address it is put into, whatever its text', async () => {
  await fc.assert(
    fc.asyncProperty(fc.string({ unit: 'grapheme', maxLength: 3000 }), async (text) => {
      const fragment = await toFragment({ ...handOff, text });
      assert.match(fragment, /^[\w-]+$/);
      assert.deepEqual(await fromFragment(fragment), { ...handOff, text });
    }),
    { numRuns: 40 }
  );
});

test('a fragment that is cut off, foreign or far too long gives nothing', async () => {
  const fragment = await toFragment(handOff);
  for (const broken of ['', 'abc', fragment.slice(0, -9), '%%%', 'A'.repeat(70_000)])
    assert.equal(await fromFragment(broken), null);
});

test('a fragment that leads anywhere but to the web gives nothing', async () => {
  const evil = 'javascript:alert(1)';
  const { answer } = handOff;
  for (const change of [
    { placeUrl: evil },
    { file: { name: 'x', url: evil, id: '' } },
    { answer: { ...answer, messages: evil } }
  ])
    assert.equal(await fromFragment(await toFragment({ ...handOff, ...change })), null);
});

test('the message has the page, the words and the file, and its HTML no markup of the text', async () => {
  const files = [{ name: 'picture.png', type: 'image/png', bytes: new Uint8Array([1, 2]) }];
  const read = await PostalMime.parse(handOffMessage(handOff, PAGE, files, mailbox, new Date(0)));
  assert.equal(read.messageId, '<x1@swift-twin.invalid>');
  assert.match(read.text ?? '', /hand-off#abc[\s\S]*is attached[\s\S]*Flax <is> in & dry\./);
  assert.match(read.html ?? '', /href="https:\/\/twin\.example\/hand-off#abc"/);
  assert.ok(!read.html?.includes('<is>'));
  assert.equal(read.attachments.length, 1);
  const alone = await PostalMime.parse(handOffMessage(handOff, PAGE, [], mailbox, new Date(0)));
  assert.match(alone.text ?? '', /too large for a message/);
});

test('the answer names what it answers and the address that was got', async () => {
  const read = await readMessage(answerMessage(handOff, 'https://board.example/7', new Date(5)));
  assert.equal(read.inReplyTo, 'x1@swift-twin.invalid');
  assert.equal(addressIn(read.text), 'https://board.example/7');
  assert.equal(addressIn('I could not: javascript:alert(1)'), null);
});
