import { html, raw } from 'hono/html';
import type { World } from '../context.ts';
import { playlists, type Video } from '../world/world.ts';
import { commentsBody } from './comments.ts';
import { thumbnails } from './feed.ts';

const STYLE = `body{font:16px/1.5 "DejaVu Sans",Verdana,sans-serif;margin:0;background:#f7f4ee;color:#222}
header{background:#3b3a36;color:#fff;padding:.7rem 1.5rem}header a{color:#fff;margin-right:1.5rem}
main{max-width:62rem;margin:1.5rem auto;padding:0 1.5rem}ul.videos{list-style:none;padding:0;display:grid;grid-template-columns:repeat(auto-fill,minmax(14rem,1fr));gap:1.2rem}
img,video,iframe{max-width:100%;border:0}small{color:#5d5a52}a{color:#7b2d1f}`;

export function channelPage(world: World, title: string, head: unknown, body: unknown) {
  return html`<!doctype html>
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width" />
        <title>${title}</title>
        <style>
          ${raw(STYLE)}
        </style>
        ${head}
      </head>
      <body>
        <header>
          <a href="${world.channelUrl}">Wrenfold Loomworks</a>
          <a href="${world.channelUrl}playlists">Playlists</a>
          <a href="${world.channelUrl}search">Search</a>
        </header>
        <main>${body}</main>
      </body>
    </html>`;
}

export function feedLink(href: string, title: string) {
  return html`<link rel="alternate" type="application/atom+xml" href="${href}" title="${title}" />`;
}

/** Where programs send what is to stand here, and ask what their key may do. */
export function programLinks(world: World) {
  return html`<link rel="micropub" href="${world.channelUrl}micropub" />
    <link rel="token_endpoint" href="${world.channelUrl}token" />`;
}

export function videoList(world: World, videos: Video[]) {
  if (videos.length === 0) return html`<p>Nothing here.</p>`;
  return html`<ul class="videos">
    ${videos.map(
      (video) =>
        html`<li>
          <a href="${world.channelUrl}watch/${video.id}">
            <img src="${thumbnails(world, video)[1]?.url ?? ''}" alt="" width="240" />
            <br />${video.title}
          </a>
          <br /><small
            >${
              world.isOut(video)
                ? `${clock(video.duration)}, ${world.figures(video).views} views`
                : `Premieres ${new Date(video.published).toUTCString()}`
            }</small
          >
        </li>`
    )}
  </ul>`;
}

export function watchHead(world: World, video: Video) {
  const url = `${world.channelUrl}watch/${video.id}`;
  const isOut = world.isOut(video);
  const media = `${world.channelUrl}videos/${video.id}/`;
  const data = {
    '@context': 'https://schema.org',
    '@type': 'VideoObject',
    '@id': url,
    url,
    name: video.title,
    description: video.description,
    thumbnailUrl: thumbnails(world, video).map((t) => t.url),
    uploadDate: new Date(video.published).toISOString(),
    duration: `PT${Math.round(video.duration)}S`,
    embedUrl: `${world.channelUrl}embed/${video.id}`,
    inLanguage: video.language,
    keywords: video.tags,
    license: video.licence,
    author: { '@type': 'Organization', name: video.author },
    ...(isOut && {
      contentUrl: `${media}clip.webm`,
      ...(video.cues.length > 0 && {
        caption: {
          '@type': 'MediaObject',
          contentUrl: `${media}captions.vtt`,
          encodingFormat: 'text/vtt',
          inLanguage: video.language
        }
      }),
      hasPart: chaptersShown(video).map((chapter) => ({
        '@type': 'Clip',
        name: chapter.title,
        startOffset: Math.round(chapter.start),
        endOffset: Math.round(chapter.end),
        url: `${url}?t=${Math.round(chapter.start)}`
      })),
      potentialAction: {
        '@type': 'SeekToAction',
        target: `${url}?t={seek_to_second_number}`,
        'startOffset-input': 'required name=seek_to_second_number'
      }
    })
  };
  const oembed = `${world.channelUrl}oembed?url=${encodeURIComponent(url)}`;
  return html`${feedLink(`${world.channelUrl}feed.xml`, 'Uploads of Wrenfold Loomworks')}
    ${programLinks(world)}
    <link rel="canonical" href="${url}" />
    <link rel="alternate" type="application/json+oembed" href="${oembed}" title="${video.title}" />
    ${video.visibility === 'unlisted' ? html`<meta name="robots" content="noindex" />` : ''}
    <script type="application/ld+json">
      ${raw(JSON.stringify(data).replaceAll('<', '\\u003c'))}
    </script>`;
}

/** Uploads whose maker set chapters show them; automatic captions come without. */
export function chaptersShown(video: Video) {
  return video.captions === 'edited' && !video.upright ? video.chapters : [];
}

export function player(world: World, video: Video, from: number) {
  if (!world.isOut(video)) {
    return html`<p>Premieres ${new Date(video.published).toUTCString()}.</p>`;
  }
  const media = `${world.channelUrl}videos/${video.id}/`;
  return html`<video
    controls
    playsinline
    preload="metadata"
    width="${video.width}"
    height="${video.height}"
    poster="${thumbnails(world, video).at(-1)?.url ?? ''}"
    src="${media}clip.webm${from > 0 ? `#t=${from}` : ''}"
  >
    ${
      video.cues.length > 0
        ? html`<track
            kind="captions"
            srclang="${video.language}"
            src="${media}captions.vtt"
            label="Captions"
          />`
        : ''
    }
    ${
      chaptersShown(video).length > 0
        ? html`<track kind="chapters" srclang="${video.language}" src="${media}chapters.vtt" />`
        : ''
    }
  </video>`;
}

export function watchBody(world: World, video: Video, from: number) {
  return html`<h1>${video.title}</h1>
    ${player(world, video, from)}
    <p>
      <small
        >${video.author} · ${new Date(video.published).toUTCString()} ·
        ${world.figures(video).views} views · ${video.licence}</small
      >
    </p>
    <p style="white-space:pre-wrap">${video.description}</p>
    ${
      chaptersShown(video).length > 0
        ? html`<h2>Chapters</h2>
            <ol>
              ${chaptersShown(video).map(
                (chapter) =>
                  html`<li>
                    <a href="?t=${Math.round(chapter.start)}">${clock(chapter.start)}</a>
                    ${chapter.title}
                  </li>`
              )}
            </ol>`
        : ''
    }
    ${commentsBody(world, video)}`;
}

export function playlistsBody(world: World) {
  return html`<h1>Playlists</h1>
    <ul>
      ${playlists.map(
        (list) => html`<li><a href="${world.channelUrl}playlists/${list.id}">${list.title}</a></li>`
      )}
    </ul>`;
}

export function clock(seconds: number): string {
  const s = Math.round(seconds);
  const two = (n: number) => String(n).padStart(2, '0');
  const rest = `${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`;
  return s >= 3600 ? `${Math.floor(s / 3600)}:${rest}` : rest.replace(/^0(?=\d:)/, '');
}
