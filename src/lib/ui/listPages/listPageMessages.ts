import type { ListPage } from '$lib/core/listPages/listPage.ts';

export const problemTexts: Record<Exclude<ListPage['problem'], ''>, string> = {
  'edited-there':
    'The same part was edited at the blog, so automatic updates are paused. Publish the page again to resume; you choose what stays.',
  'gone-there': 'The page was deleted at the blog. Publish it again to put it back.',
  empty: 'Nothing would be left in the list, so the page was not updated. Check what it lists.',
  shrunk:
    'More than half of the items would go, so the page was not updated. Check that all channels can be read, then publish it again.'
};

export const listsLabels: Record<ListPage['lists'], string> = { videos: 'Videos', posts: 'Posts' };
export const orderLabels: Record<ListPage['order'], string> = {
  newest: 'Newest first',
  oldest: 'Oldest first',
  title: 'By title'
};
export const groupLabels: Record<ListPage['groups'], string> = {
  none: 'No headings',
  year: 'A heading for each year',
  month: 'A heading for each month'
};
export const styleLabels: Record<ListPage['style'], string> = {
  lines: 'Titles in a list',
  pictures: 'With picture and summary'
};
