import { videoFigures, type VideoFigures } from './audience/model.ts';
import type { Comment } from './comments/comment.ts';
import type { State, Store } from './state.ts';
import { toVideo, workOf, type Upload } from './channel/upload.ts';
import { worldVideosAt, type Post, type Video } from './world/world.ts';

/** What both hosts need to know of the world they are in. */
export class World {
  #videos: { began: number; list: Video[] } | null = null;
  /** Reckoned once an hour. */
  readonly #figures = new Map<string, VideoFigures & { hour: number; published: number }>();

  constructor(
    readonly store: Store,
    readonly origin: string
  ) {}

  get channelUrl(): string {
    return `${this.origin}/channel/`;
  }
  get blogUrl(): string {
    return `${this.origin}/blog/`;
  }

  now(): number {
    return this.store.now();
  }

  #all(): Video[] {
    const { began, titles, edits } = this.store.state;
    if (this.#videos?.began !== began)
      this.#videos = {
        began,
        list: worldVideosAt(began, this.blogUrl, this.store.state.hasBackCatalogue)
      };
    const uploads = this.store.state.uploads
      .filter((u) => !u.deleted && workOf(u, this.now()).state === 'ready')
      .map((u) => toVideo(u, this.now()));
    return [...this.#videos.list, ...uploads].map((video) => {
      const given = titles[video.id];
      const titled = given ? { ...video, title: given.title, updated: given.at } : video;
      const edit = edits[video.id];
      return edit ? edited(titled, edit) : titled;
    });
  }

  /** What the channel lists: public uploads, newest first, and premieres that are announced. */
  listed(): Video[] {
    return this.#all()
      .filter((video) => video.visibility === 'public')
      .sort((a, b) => b.published - a.published);
  }

  /** An upload that whoever has its address may see. */
  reachable(id: string): Video | undefined {
    return this.#all().find((video) => video.id === id && video.visibility !== 'private');
  }

  /** An upload by program, in whatever state; undefined for what the world began with. */
  uploadOf(id: string): Upload | undefined {
    return this.store.state.uploads.find((u) => u.id === id && !u.deleted);
  }

  isOut(video: Video): boolean {
    return video.published <= this.now();
  }

  /** What came of an upload so far, by the model of the audience. */
  figures(video: Video): VideoFigures {
    const hour = Math.floor(this.now() / 3_600_000);
    const known = this.#figures.get(video.id);
    if (known?.hour === hour && known.published === video.published) return known;
    const figures = { hour, published: video.published, ...videoFigures(video, this.now()) };
    this.#figures.set(video.id, figures);
    return figures;
  }

  /** What was written under an upload, oldest first. */
  comments(video: string): Comment[] {
    return this.store.state.comments.filter((c) => c.video === video).sort((a, b) => a.at - b.at);
  }

  posts(): readonly Post[] {
    return this.store.state.posts;
  }

  isPublic(post: Post): boolean {
    return (
      !post.deleted &&
      post.status === 'published' &&
      post.visibility === 'public' &&
      this.publishedAt(post) <= this.now()
    );
  }

  publishedAt(post: Post): number {
    const time = Date.parse(String(post.properties.published?.[0] ?? ''));
    return Number.isNaN(time) ? post.created : time;
  }

  postUrl(post: Post): string {
    const url = `${this.blogUrl}posts/${post.slug}`;
    return this.isPublic(post) || post.visibility === 'unlisted' || post.deleted
      ? url
      : `${url}?look=${post.secret}`;
  }
}

/** An upload as its owner changed it at the channel. */
function edited(video: Video, edit: State['edits'][string]): Video {
  const { description, said, mended, visibility, published, at } = edit;
  const end = video.duration;
  const cues = video.cues.map((cue) =>
    mended ? { ...cue, text: cue.text.replaceAll(mended.from, mended.to) } : cue
  );
  return {
    ...video,
    updated: Math.max(video.updated, at),
    description: description ?? video.description,
    visibility: visibility ?? video.visibility,
    published: published ?? video.published,
    ...(said && { duration: end + 4 }),
    cues: said ? [...cues, { start: end, end: end + 4, text: said }] : cues
  };
}
