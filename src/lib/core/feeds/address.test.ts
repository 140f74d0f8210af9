import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { absoluteAddress, addressFromInput, canonicalAddress, isSameSite } from './address.ts';

test('the many addresses of one page come to one', () => {
  const spellings = [
    'https://www.loom.example/watch/twill',
    'http://loom.example/watch/twill/',
    'https://loom.example/watch/twill?utm_source=letter&t=42',
    'https://LOOM.example/watch/twill#comments',
    'https://loom.example:443/watch/twill'
  ];
  assert.deepEqual(new Set(spellings.map(canonicalAddress)), new Set(['loom.example/watch/twill']));
});

test('parameters that name the page are kept, in any order', () => {
  assert.equal(
    canonicalAddress('https://a.example/?v=1&list=2'),
    canonicalAddress('https://a.example/?list=2&v=1')
  );
  assert.notEqual(
    canonicalAddress('https://a.example/?v=1'),
    canonicalAddress('https://a.example/?v=2')
  );
});

test('what is not an http address has no canonical form', () => {
  for (const bad of ['', 'twill', 'javascript:alert(1)', 'mailto:a@b.example']) {
    assert.equal(canonicalAddress(bad), '');
  }
});

test('canonical addresses do not change when made canonical again', () => {
  fc.assert(
    fc.property(fc.webUrl({ withQueryParameters: true, withFragments: true }), (url) => {
      const once = canonicalAddress(url);
      assert.equal(canonicalAddress(`https://${once}`), once);
    })
  );
});

test('relative addresses are resolved and dangerous ones dropped', () => {
  assert.equal(absoluteAddress('../a.png', 'https://a.example/b/c'), 'https://a.example/a.png');
  assert.equal(absoluteAddress('//cdn.example/a', 'https://a.example/'), 'https://cdn.example/a');
  assert.equal(absoluteAddress(' javascript:alert(1)', 'https://a.example/'), '');
  assert.equal(absoluteAddress('data:text/html,x', 'https://a.example/'), '');
  assert.equal(absoluteAddress(undefined, 'https://a.example/'), '');
});

test('what people paste becomes an address, or is reported to be none', () => {
  assert.equal(addressFromInput('  loom.example/channel '), 'https://loom.example/channel');
  assert.equal(addressFromInput('<https://loom.example/>'), 'https://loom.example/');
  for (const bad of ['', 'my channel', 'loom', 'ftp://loom.example/', 'javascript:alert(1)']) {
    assert.equal(addressFromInput(bad), null, bad);
  }
});

test('an address is of the same site with its www. and without, and of no other', () => {
  assert.equal(isSameSite('https://www.board.example/1', 'https://board.example/'), true);
  assert.equal(isSameSite('https://board.example.evil/1', 'https://board.example/'), false);
  assert.equal(isSameSite('https://notboard.example/1', 'https://board.example/'), false);
  assert.equal(isSameSite('nothing', 'https://board.example/'), false);
});
