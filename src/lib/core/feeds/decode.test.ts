import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { decodeText } from './decode.ts';

const latin1 = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));

test('the document, the header and the byte order mark are believed in that rising order', () => {
  const xml = '<?xml version="1.0" encoding="iso-8859-1"?><a>aufb\u00e4umen</a>';
  assert.match(decodeText(latin1(xml)), /aufbäumen/);
  assert.match(decodeText(latin1('<a>\u00e4</a>'), 'text/xml; charset=ISO-8859-1'), /ä/);
  const utf16 = new Uint8Array([0xff, 0xfe, 0x61, 0, 0xe4, 0]);
  assert.equal(decodeText(utf16, 'text/xml; charset=iso-8859-1'), 'aä');
});

test('a wrong label does not spoil text that is UTF-8 after all', () => {
  const bytes = new TextEncoder().encode('aufbäumen');
  assert.equal(decodeText(bytes, 'text/xml; charset=no-such-thing'), 'aufbäumen');
});

test('bytes that are no UTF-8 are read as Windows-1252', () => {
  assert.equal(decodeText(latin1('\u0093twill\u0094 \u00e4')), '“twill” ä');
});

test('any bytes give a text', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 400 }), fc.string(), (bytes, type) => {
      assert.equal(typeof decodeText(bytes, type), 'string');
    })
  );
});
