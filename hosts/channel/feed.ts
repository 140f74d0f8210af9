import { create } from 'xmlbuilder2';
import { repliesLink, THREAD } from '../comments/feed.ts';
import type { World } from '../context.ts';
import type { Video } from '../world/world.ts';
import { commentsUrl, videoTag } from './comments.ts';

const PAGE = 8;
export const THUMBNAIL_WIDTHS = [320, 480, 640, 1280];

export function thumbnails(world: World, video: Video) {
  return THUMBNAIL_WIDTHS.map((size) => {
    const width = video.upright ? Math.round((size * 9) / 16) : size;
    const height = video.upright ? size : Math.round((size * 9) / 16);
    return { url: `${world.channelUrl}thumbnails/${video.id}/${size}.png`, width, height };
  });
}

/** An Atom feed with Media RSS, in pages as RFC 5005 has them. */
export function channelFeed(
  world: World,
  options: { videos: Video[]; title: string; self: string; home: string; page: number }
): string {
  const { videos, title, self, home } = options;
  const pages = Math.max(1, Math.ceil(videos.length / PAGE));
  const page = Math.min(Math.max(1, options.page), pages);
  const pageUrl = (n: number) => {
    const url = new URL(self);
    if (n > 1) url.searchParams.set('page', String(n));
    return url.href;
  };
  const link = (rel: string, href: string, type?: string) => ({
    '@rel': rel,
    '@href': href,
    ...(type && { '@type': type })
  });
  return create({
    feed: {
      '@xmlns': 'http://www.w3.org/2005/Atom',
      '@xmlns:media': 'http://search.yahoo.com/mrss/',
      '@xmlns:dcterms': 'http://purl.org/dc/terms/',
      '@xmlns:thr': THREAD,
      id: home,
      title,
      updated: new Date(Math.max(0, ...videos.map((v) => v.updated))).toISOString(),
      author: { name: 'Wrenfold Loomworks', uri: world.channelUrl },
      link: [
        link('self', pageUrl(page)),
        link('alternate', home, 'text/html'),
        link('first', pageUrl(1)),
        link('last', pageUrl(pages)),
        ...(page > 1 ? [link('previous', pageUrl(page - 1))] : []),
        ...(page < pages ? [link('next', pageUrl(page + 1))] : [])
      ],
      entry: videos.slice((page - 1) * PAGE, page * PAGE).map((video) => entry(world, video))
    }
  }).end({ prettyPrint: true });
}

function entry(world: World, video: Video) {
  const isOut = world.isOut(video);
  const comments = world.comments(video.id).length;
  const figures = world.figures(video);
  const media = `${world.channelUrl}videos/${video.id}/`;
  return {
    id: videoTag(video.id),
    title: video.title,
    link: [
      {
        '@rel': 'alternate',
        '@type': 'text/html',
        '@href': `${world.channelUrl}watch/${video.id}`
      },
      repliesLink(commentsUrl(world, video.id), comments)
    ],
    'thr:total': comments,
    published: new Date(video.published).toISOString(),
    updated: new Date(video.updated).toISOString(),
    author: { name: video.author },
    category: { '@term': video.category },
    'dcterms:language': video.language,
    'dcterms:accessRights': video.visibility,
    'dcterms:license': video.licence,
    ...(video.madeFrom && { 'dcterms:source': video.madeFrom }),
    ...(video.uid && { 'dcterms:identifier': video.uid }),
    'dcterms:available': new Date(video.published).toISOString(),
    'media:group': {
      'media:title': video.title,
      'media:description': { '@type': 'plain', '#': video.description },
      ...(isOut && {
        'media:content': {
          '@url': `${media}clip.webm`,
          '@type': 'video/webm',
          '@medium': 'video',
          '@duration': Math.round(video.duration),
          '@lang': video.language,
          '@width': video.width,
          '@height': video.height
        }
      }),
      'media:player': {
        '@url': `${world.channelUrl}embed/${video.id}`,
        '@width': video.width,
        '@height': video.height
      },
      'media:thumbnail': thumbnails(world, video)
        .reverse()
        .map((t) => ({ '@url': t.url, '@width': t.width, '@height': t.height })),
      'media:keywords': video.tags.join(', '),
      'media:license': {
        '@type': 'text/html',
        ...(video.licence.startsWith('http') && { '@href': video.licence }),
        '#': video.licence
      },
      ...(isOut &&
        video.cues.length > 0 && {
          'media:subTitle': {
            '@type': 'text/vtt',
            '@lang': video.language,
            '@href': `${media}captions.vtt`
          }
        }),
      'media:community': {
        'media:starRating': {
          '@average': figures.stars,
          '@count': figures.ratings,
          '@min': 1,
          '@max': 5
        },
        'media:statistics': { '@views': figures.views, '@favorites': figures.likes }
      }
    }
  };
}
