import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { originMarker } from '../article/template/originMarker.ts';
import { cleanHtml } from './clean.ts';
import { escapeHtml } from '../text/escapeHtml.ts';
import { htmlText, paragraphsToHtml, plainText } from '../text/html.ts';

const BASE = 'https://blog.example/posts/one';

test('what runs is taken out, what is read stays', () => {
  const { html } = cleanHtml(
    `<p onclick="x()">A <b>twill</b><script>alert(1)</script><img src=x onerror=alert(1)>
     <a href="javascript:alert(1)">no</a><a href="../two">yes</a><svg><script>1</script></svg>
     <iframe srcdoc="<script>1</script>"></iframe><style>p{}</style></p>`,
    BASE
  );
  assert.doesNotMatch(html, /script|onclick|onerror|javascript|srcdoc|style|svg/i);
  assert.match(html, /<b>twill<\/b>/);
  assert.match(html, /href="https:\/\/blog\.example\/two"/);
});

test('it tells what it frames, links to and shows', () => {
  const found = cleanHtml(
    '<iframe src="//tv.example/e/1"></iframe><a href="/a">a</a><a href="mailto:a@b.example">m</a><img src="p.png">',
    BASE
  );
  assert.deepEqual(found.embeds, ['https://tv.example/e/1']);
  assert.deepEqual(found.links, ['https://blog.example/a']);
  assert.deepEqual(found.pictures, ['https://blog.example/posts/p.png']);
  assert.match(found.html, /mailto:a@b\.example/);
});

test('the origin marker of a made post is found again after cleaning', () => {
  const once = cleanHtml(`<p>x</p>${originMarker('key-1')}`, BASE);
  assert.equal(once.origin, 'key-1');
  assert.equal(cleanHtml(once.html, BASE).origin, 'key-1');
  assert.equal(cleanHtml('<data class="other" value="key-1"></data>', BASE).origin, null);
});

test('cleaning what is clean changes nothing, and no input brings a script through', () => {
  const nasty = fc
    .array(
      fc.oneof(
        fc.constantFrom(
          '<',
          '>',
          '"',
          "'",
          '&',
          '&lt;',
          '<script>',
          '</script',
          '<img src=x onerror=',
          '<a href=java',
          'script:'
        ),
        fc.string({ maxLength: 8 })
      ),
      { maxLength: 30 }
    )
    .map((parts) => parts.join(''));
  fc.assert(
    fc.property(nasty, (source) => {
      const once = cleanHtml(source, BASE).html;
      assert.equal(cleanHtml(once, BASE).html, once);
      assert.doesNotMatch(once, /<script|<[^>]+\son\w+=|href="java/i);
    }),
    { numRuns: 500 }
  );
});

test('text keeps paragraphs apart and joins what is inline', () => {
  assert.equal(
    htmlText('<p>one <b>two</b></p>\n<p>three<br>four</p><ul><li>a</li><li>b</li></ul>'),
    'one two\n\nthree\nfour\n\na\n\nb'
  );
  assert.equal(plainText('A &lt;b&gt; &amp; <i>c</i>\n d<script>no</script>'), 'A <b> & c d');
  assert.equal(paragraphsToHtml('a & b\nc\n\nd'), '<p>a &amp; b<br>c</p>\n<p>d</p>');
});

test('escaped text reads the same again', () => {
  fc.assert(
    fc.property(fc.string(), (text) =>
      assert.equal(plainText(escapeHtml(text)), text.replace(/\s+/g, ' ').trim())
    )
  );
});
