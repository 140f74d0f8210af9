import adapter from '@sveltejs/adapter-node';
import { compressText } from './bin/compress.js';

const node = adapter({ precompress: true });

/** @type {import('@sveltejs/kit').Config} */
export default {
  compilerOptions: { runes: true },
  kit: {
    adapter: {
      ...node,
      // The adapter would press the speech engines too, for minutes and to little use.
      adapt: (builder) =>
        node.adapt(Object.assign(Object.create(builder), { compress: compressText }))
    },
    // What the page itself may load. Frames, media and pictures of linked places are added
    // to each answer by src/hooks.server.ts: they differ from one browser to the next.
    csp: {
      mode: 'nonce',
      directives: {
        'default-src': ['self'],
        'script-src': ['self'],
        'style-src': ['self'],
        // Libraries place popovers and charts by the style attribute; it can load nothing.
        'style-src-attr': ['unsafe-inline'],
        'font-src': ['self'],
        'connect-src': ['self'],
        'worker-src': ['self'],
        'object-src': ['none'],
        'base-uri': ['none'],
        'form-action': ['self'],
        'frame-ancestors': ['none'],
        // What a browser runs has gone through a policy: the default one stands in app.html.
        'require-trusted-types-for': ['script'],
        'trusted-types': ['default', 'dompurify', 'svelte-trusted-html']
      }
    }
  }
};
