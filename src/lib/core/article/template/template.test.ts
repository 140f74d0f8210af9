import assert from 'node:assert/strict';
import { test } from 'node:test';
import { asToday, defaultTemplate } from './template.ts';

const kinds = (template: { blocks: readonly { kind: string }[] }) =>
  template.blocks.map((block) => block.kind);

test('nothing kept yet gives the default layout, as a copy', () => {
  const template = asToday(null);
  assert.deepEqual(template, defaultTemplate);
  template.blocks[0]!.on = false;
  assert.equal(defaultTemplate.blocks[0]!.on, true);
});

test('a layout from before a block was known gets it where it belongs, off', () => {
  const kept = {
    ...defaultTemplate,
    blocks: defaultTemplate.blocks.filter((block) => block.kind !== 'lead')
  };
  const template = asToday(kept);
  assert.deepEqual(kinds(template), kinds(defaultTemplate));
  assert.equal(template.blocks[1]!.on, false);
});

test('the order of the user stays', () => {
  const kept = { ...defaultTemplate, blocks: defaultTemplate.blocks.toReversed() };
  assert.deepEqual(kinds(asToday(kept)), kinds(kept));
});

test('a block that was kept twice is there once, with its own name', () => {
  const [embed, ...others] = defaultTemplate.blocks;
  const kept = {
    ...defaultTemplate,
    blocks: [{ ...embed!, on: false }, { ...embed!, id: 'placeholder' }, ...others]
  };
  const template = asToday(kept);
  assert.deepEqual(kinds(template), kinds(defaultTemplate));
  assert.equal(template.blocks[0]!.on, false);
  const placeholder = { ...defaultTemplate, blocks: [{ ...embed!, id: 'placeholder' }, ...others] };
  assert.deepEqual(asToday(placeholder), defaultTemplate);
});
