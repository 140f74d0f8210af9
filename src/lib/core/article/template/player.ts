import { escapeHtml } from '../../text/html.ts';

/** The player of a video as it stands in a post. */
export const playerHtml = (embedUrl: string, title: string, width = 640, height = 360): string =>
  `<figure class="video"><iframe src="${escapeHtml(embedUrl)}" width="${width}" height="${height}" title="${escapeHtml(title)}" loading="lazy" allowfullscreen></iframe></figure>`;
