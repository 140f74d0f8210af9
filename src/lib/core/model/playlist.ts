import { z } from 'zod';

/** A playlist of a linked channel. Its items are known by what the channel itself calls them. */
export const playlistSchema = z.object({
  /** Address of its feed. */
  url: z.string(),
  placeId: z.string(),
  title: z.string(),
  members: z.array(z.string()),
  /** ISO 8601; empty while it was not read yet. */
  read: z.string()
});
export type Playlist = z.infer<typeof playlistSchema>;
