import type { Element } from 'hast';
import { h } from 'hastscript';
import { writeHtml } from '../../markup/html.ts';

/** The player of a video as it stands in a post. */
export const playerOf = (embedUrl: string, title: string, width = 640, height = 360): Element =>
  h(
    'figure.video',
    h('iframe', { src: embedUrl, width, height, title, loading: 'lazy', allowFullScreen: true })
  );

export const playerHtml = (embedUrl: string, title: string): string =>
  writeHtml(playerOf(embedUrl, title));
