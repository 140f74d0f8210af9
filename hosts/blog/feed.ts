import { create } from 'xmlbuilder2';
import { htmlContent } from '../htmlContent.ts';
import { repliesLink, THREAD } from '../comments/feed.ts';
import type { World } from '../context.ts';
import type { Post } from '../world/world.ts';
import { citedComments, commentsUrl } from './comments.ts';
import { BLOG_NAME, contentHtml, list, text } from './pages.ts';

export function blogFeed(world: World, posts: Post[]): string {
  const self = `${world.blogUrl}feed.xml`;
  return create({
    feed: {
      '@xmlns': 'http://www.w3.org/2005/Atom',
      '@xmlns:thr': THREAD,
      id: world.blogUrl,
      title: BLOG_NAME,
      updated: new Date(Math.max(0, ...posts.map((p) => p.updated))).toISOString(),
      author: { name: 'Isolde Wrenfold' },
      link: [
        { '@rel': 'self', '@href': self },
        { '@rel': 'alternate', '@type': 'text/html', '@href': world.blogUrl }
      ],
      entry: posts.map((post) => ({
        id: `${world.blogUrl}posts/${post.slug}`,
        title: text(post, 'name'),
        link: [
          {
            '@rel': 'alternate',
            '@type': 'text/html',
            '@href': `${world.blogUrl}posts/${post.slug}`
          },
          repliesLink(commentsUrl(world, post), citedComments(post).length)
        ],
        published: new Date(world.publishedAt(post)).toISOString(),
        updated: new Date(post.updated).toISOString(),
        author: { name: text(post, 'author') || 'Isolde Wrenfold' },
        category: list(post, 'category').map((term) => ({ '@term': term })),
        summary: text(post, 'summary'),
        content: htmlContent(contentHtml(post))
      }))
    }
  }).end({ prettyPrint: true });
}
