import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Resvg } from '@resvg/resvg-js';
import { sceneSvg } from './scenes.ts';
import { videos } from './videos.ts';

test('each upload has a picture of its own that can be drawn, in its own shape', () => {
  const pictures = videos.map((video) => {
    const [width, height] = video.upright ? [90, 160] : [160, 90];
    const picture = new Resvg(sceneSvg(video, width, height)).render();
    assert.deepEqual([picture.width, picture.height], [width, height]);
    // More than a plain ground.
    assert.ok(new Set(picture.pixels).size > 20, video.id);
    return picture.asPng().toString('base64');
  });
  assert.ok(new Set(pictures).size >= videos.length - 2);
});
