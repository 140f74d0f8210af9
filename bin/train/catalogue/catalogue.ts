import { seeded } from '../../../src/lib/core/seeded.ts';
import { itemSchema, type Item } from '../../../src/lib/core/model/item.ts';
import type { Relation } from '../../../src/lib/core/model/tie.ts';
import type { Craft, Task } from './crafts.ts';

/** Which video and which post tell the same, and how. */
export interface Truth {
  video: string;
  post: string;
  relation: Relation;
}

export interface Catalogue {
  videos: Item[];
  posts: Item[];
  /** Plain text by item id: a description, now and then a transcript; the text of a post. */
  texts: Map<string, string>;
  truth: Truth[];
}

/** What somebody said at length, of whatever. */
export interface Talk {
  title: string;
  words: readonly string[];
}

/** How a channel names its videos and its posts. */
export type Manner = 'same' | 'question' | 'diary' | 'bait' | 'german' | 'short';

interface Work {
  thing: readonly [string, string?];
  task: Task;
  facts: readonly Fact[];
  person: string;
  town: string;
  words: readonly (readonly [string, string?])[];
}
type Fact = readonly [count: string, en: string, de?: string];

const DAY = 86_400_000;
const UNDATED = 0.15;
const capital = (text: string) => text.replace(/^\p{Ll}/u, (c) => c.toUpperCase());

/**
 * A made catalogue of one channel and its blog, with what confuses: series, remakes years later, posts
 * that tell of several videos, round-ups, notes about nothing in particular, videos that say nothing.
 * @param talks of which some are uploads of an hour, and others go before and after what is said in a video or a post
 */
export function makeCatalogue(
  craft: Craft,
  manner: Manner,
  seed: number,
  counts: { videos: number; posts: number },
  talks: readonly Talk[] = []
): Catalogue {
  const chance = seeded(seed);
  const pick = <T>(all: readonly T[]): T => all[Math.floor(chance() * all.length)]!;
  const some = <T>(all: readonly T[], count: number): T[] =>
    [...all].sort(() => chance() - 0.5).slice(0, count);
  const made: Catalogue = { videos: [], posts: [], texts: new Map(), truth: [] };
  const began = Date.UTC(2015, 2, 1);
  let clock = began;
  const isGerman = manner === 'german';
  // Some blogs say nowhere when something was written.
  const isUndated = chance() < UNDATED;

  const newWork = (thing: Work['thing'], task: Task): Work => ({
    thing,
    task,
    facts: Array.from({ length: 3 }, (): Fact => {
      const [en, de] = pick(craft.units);
      const count = String(2 + Math.floor(chance() ** 2 * 900));
      return de ? [count, en, de] : [count, en];
    }),
    person: pick(craft.people),
    town: pick(craft.towns),
    words: some(task.words, 5)
  });

  const item = (kind: 'video' | 'post', title: string, at: number, given: Partial<Item> = {}) => {
    const id = `${craft.name}-${kind[0]}${(kind === 'video' ? made.videos : made.posts).length}`;
    const made_ = itemSchema.parse({
      id,
      placeId: kind,
      kind,
      nativeId: id,
      url: `https://${craft.name}.example/${kind}/${id}`,
      title,
      published: isUndated ? null : new Date(at).toISOString(),
      updated: new Date(at).toISOString(),
      visibility: 'public',
      author: '',
      language: kind === 'post' && isGerman ? 'de' : chance() < 0.7 ? 'en' : '',
      licence: '',
      duration: kind === 'video' ? 200 + Math.floor(chance() * 1400) : null,
      summary: '',
      pictures: [],
      embedUrl: '',
      contentUrl: '',
      captions: [],
      tags: [],
      embeds: [],
      links: [],
      origin: null,
      ...given
    });
    (kind === 'video' ? made.videos : made.posts).push(made_);
    return made_;
  };

  const videoTitle = ({ thing: [thing], task, person, town, facts }: Work): string => {
    const a = /^(?:the|a) |s$|^\p{Lu}/u.test(thing) ? thing : `a ${thing}`;
    switch (manner) {
      case 'same':
        return pick([`How to ${task.verb} ${a}`, `${capital(task.ing)} ${a}, step by step`]);
      case 'question':
        return pick([
          `${capital(task.ing)} ${a} with ${person}`,
          `${capital(task.ing)} ${a}: my way`
        ]);
      case 'diary':
        return `Workshop day: ${task.ing} ${a}`;
      case 'bait':
        return pick([
          `${person} said never ${task.verb} ${a} like this`,
          `${facts[0]![0]} ${facts[0]![1]} to ${task.verb} ${a}?!`
        ]);
      case 'german':
        return pick([
          `${capital(task.ing)} ${a} in ${town}`,
          `${capital(thing)}: ${task.ing}, and ${town}`
        ]);
      case 'short':
        return pick([`${capital(thing)}, ${task.ing}`, `${capital(task.ing)} (${thing})`]);
    }
  };
  const postTitle = (work: Work, video: string): string => {
    const { thing, task, words, person, town, facts } = work;
    const a = /^(?:the|a) |s$|^\p{Lu}/u.test(thing[0]) ? thing[0] : `a ${thing[0]}`;
    const draw = chance();
    switch (manner) {
      case 'same':
        return draw < 0.6 ? video : `${video} (with photos)`;
      case 'question':
        return draw < 0.5
          ? `Why does it matter how you ${task.verb} ${a}?`
          : `What ${person} taught me about ${words[0]![0]}`;
      case 'diary':
        return draw < 0.6
          ? `${capital(task.ing)} ${a}`
          : `Notes from ${town}: ${thing[0]}, ${words[0]![0]}`;
      case 'bait':
        return draw < 0.7
          ? `${capital(task.ing)} ${a}, properly explained`
          : `${facts[0]![0]} ${facts[0]![1]}: ${words[1]![0]} and ${thing[0]}`;
      case 'german':
        return draw < 0.6
          ? `${thing[1] ?? thing[0]} ${task.de ?? task.ing}`
          : `${capital(words[0]![1] ?? words[0]![0])}: ${thing[1] ?? thing[0]} in ${town}`;
      case 'short':
        return draw < 0.5
          ? `Everything I know about ${task.ing} ${a}`
          : `On ${words[0]![0]}, and ${task.ing} ${a} in ${town}`;
    }
  };

  const spoken = ({ thing: [thing], task, facts, person, town, words }: Work): string[] => {
    const said = [
      `So today we are ${task.ing} the ${thing} and I want to show you the ${words[0]![0]} first.`,
      `You see, if you forget about the ${words[1]![0]} then nothing helps you afterwards.`,
      `It took me ${facts[0]![0]} ${facts[0]![1]}, which is more than I thought.`,
      `${person} always told me to mind the ${words[2]![0]}, back in ${town}.`,
      `Now, ${words[3]![0]}, that is the part where most people give up.`,
      `We end up with about ${facts[1]![0]} ${facts[1]![1]} and that is good enough.`,
      `And at the end the ${words[4]![0]}, I nearly forgot, about ${facts[2]![0]} ${facts[2]![1]}.`,
      `Tell me how you do it, and see you next time.`
    ];
    return said.filter(() => chance() < 0.8);
  };
  const written = (work: Work): string[] => {
    const { thing, task, facts, person, town, words } = work;
    const [w, k, u] = isGerman
      ? [
          thing[1] ?? thing[0],
          words.map(([en, de]) => de ?? en),
          facts.map(([, en, de]) => de ?? en)
        ]
      : [thing[0], words.map(([en]) => en), facts.map(([, en]) => en)];
    const text = isGerman
      ? [
          `Wer ein Stück wie dieses vor sich hat, denkt zuerst an ${k[0]}. ${w} ist da keine Ausnahme.`,
          `Ohne ${k[1]} hat alles andere keinen Sinn, das habe ich in ${town} gelernt.`,
          `Ich habe ${facts[0]![0]} ${u[0]} gebraucht, ${person} nur die Hälfte.`,
          `Dann kommt ${k[2]}, und danach ${k[3]}; dafür nehme ich mir Zeit.`,
          `Am Ende stehen ${facts[1]![0]} ${u[1]} im Heft.`,
          `Wichtig bleibt ${k[4]}, sonst fängt man von vorne an.`
        ]
      : [
          `Anybody who has a ${w} in front of them thinks of the ${k[0]} first, and rightly so.`,
          `Without ${k[1]} the rest is wasted effort, as I learned in ${town}.`,
          `My notes give ${facts[0]![0]} ${u[0]} for it; ${person} needs half of that.`,
          `Then comes ${k[2]}, followed by ${k[3]}, and neither should be hurried.`,
          `In the end the book says ${facts[1]![0]} ${u[1]}, plus ${facts[2]![0]} ${u[2]} for good measure.`,
          `What remains is ${k[4]}. Skip it and you begin again when ${task.ing} the next one.`
        ];
    return text.filter(() => chance() < 0.85);
  };

  /** A stretch of a talk, as people wander off. */
  const aside = (most: number): string => {
    if (talks.length === 0) return '';
    const { words } = pick(talks);
    const from = Math.floor(chance() * Math.max(1, words.length - most));
    return words.slice(from, from + Math.floor((0.3 + 0.7 * chance()) * most)).join(' ');
  };

  const addVideo = (work: Work, title: string, at: number): Item => {
    const video = item('video', title, at, {
      tags: some([work.thing[0], work.task.ing, work.words[0]![0], craft.name], 2)
    });
    const description = [
      chance() < 0.75 ? spoken(work).slice(0, 2).join(' ') : '',
      craft.thanks
    ].join(' ');
    const transcript =
      chance() < 0.8
        ? [aside(200), spoken(work).join(' '), chance() < 0.5 ? aside(900) : ''].join(' ')
        : '';
    made.texts.set(video.id, `${description} ${transcript}`.trim());
    return video;
  };
  const addPost = (work: Work, title: string, at: number, extra: string[] = []): Item => {
    const post = item('post', title, at, {
      tags: some([work.thing[0], work.task.ing, 'workshop', craft.name], 2)
    });
    const text =
      chance() < 0.03
        ? ''
        : [...written(work), ...extra, chance() < 0.3 ? aside(250) : ''].join(' ');
    made.texts.set(post.id, text);
    return post;
  };
  const tie = (video: Item, post: Item, relation: Truth['relation'] = 'twin') =>
    made.truth.push({ video: video.id, post: post.id, relation });
  /** Most posts follow within days, some years later. */
  const after = (at: number) =>
    at + (chance() < 0.85 ? chance() ** 2 * 14 : chance() * 900) * DAY - (chance() < 0.1 ? DAY : 0);

  const all = craft.things.flatMap((thing) => craft.tasks.map((t) => [thing, t] as const));
  const order = some(all, all.length);
  let next = 0;
  let nextTalk = Math.floor(chance() * 7);
  const fresh = (): Work => {
    const [thing, t] = order[next++ % order.length]!;
    return newWork(thing, t);
  };
  const isFull = () => made.videos.length >= counts.videos && made.posts.length >= counts.posts;
  while (!isFull()) {
    clock += (2 + chance() * 10) * DAY;
    const needsVideo = made.videos.length < counts.videos;
    const needsPost = made.posts.length < counts.posts;
    const kind = chance();
    if (needsVideo && needsPost && kind < 0.07) {
      // A series, each part of which may have a post.
      const [thing] = order[next++ % order.length]!;
      const parts = 3 + Math.floor(chance() * 4);
      const name = pick(['The long build', 'From scratch', 'Rebuild', 'Slow project']);
      const word = isGerman ? 'Teil' : 'part';
      for (let part = 1; part <= parts; part++) {
        const work = newWork(thing, pick(craft.tasks));
        clock += (3 + chance() * 6) * DAY;
        const video = addVideo(work, `${name}: ${thing[0]}, part ${part}`, clock);
        if (chance() < 0.7)
          tie(
            video,
            addPost(
              work,
              `${name}: ${(isGerman && thing[1]) || thing[0]}, ${word} ${part}`,
              after(clock)
            )
          );
      }
    } else if (needsVideo && needsPost && kind < 0.12) {
      // The same again years later; each may have its post.
      const work = fresh();
      const title = videoTitle(work);
      const video = addVideo(work, title, clock);
      if (chance() < 0.8) tie(video, addPost(work, postTitle(work, title), after(clock)));
      const later = newWork(work.thing, work.task);
      const at = clock + (700 + chance() * 700) * DAY;
      const again = addVideo(later, chance() < 0.5 ? title : `${title} (again)`, at);
      if (chance() < 0.5) tie(again, addPost(later, postTitle(later, title), after(at)));
    } else if (needsVideo && needsPost && kind < 0.16) {
      // One post that tells of three videos.
      const works = [fresh(), fresh(), fresh()];
      const videos = works.map((work, i) => addVideo(work, videoTitle(work), clock + i * 5 * DAY));
      const names = works.map((w) => (isGerman ? (w.thing[1] ?? w.thing[0]) : w.thing[0]));
      const post = addPost(
        works[0]!,
        isGerman ? `Drei Abende: ${names.join(', ')}` : `Three evenings: ${names.join(', ')}`,
        after(clock + 12 * DAY),
        works.slice(1).flatMap(written)
      );
      for (const video of videos) tie(video, post, 'several-videos');
    } else if (needsVideo && talks.length > 0 && kind < 0.17) {
      const talk = talks[nextTalk++ % talks.length]!;
      const stream = item('video', talk.title, clock, { duration: 3600 });
      made.texts.set(stream.id, `${craft.thanks} ${talk.words.join(' ')}`);
      // Written up in its own words, a third of the length, under whatever title.
      if (nextTalk <= talks.length && chance() < 0.6) {
        const kept = talk.words.filter((_, i) => Math.floor(i / 24) % 3 === 1);
        const title =
          chance() < 0.5 ? talk.title : `What we talked about, ${kept.slice(0, 4).join(' ')}`;
        const post = item('post', title, after(clock));
        made.texts.set(post.id, kept.join(' '));
        tie(stream, post);
      }
    } else if (needsVideo && needsPost && kind < 0.18) {
      // A long evening of two subjects, with a post of each.
      const works = [fresh(), fresh()];
      const name = works.map((w) => w.thing[0]).join(' and ');
      const video = item('video', `A long evening: ${name}`, clock, { duration: 4000 });
      made.texts.set(video.id, [...works.flatMap(spoken), craft.thanks].join(' '));
      for (const work of works)
        tie(video, addPost(work, postTitle(work, videoTitle(work)), after(clock)), 'several-posts');
    } else if (needsVideo && needsPost && kind < 0.2) {
      // A clip of half a minute, taken from a video that has its post.
      const work = fresh();
      const title = videoTitle(work);
      const video = addVideo(work, title, clock);
      const post = addPost(work, postTitle(work, title), after(clock));
      tie(video, post);
      const clip = item('video', `${capital(work.words[0]![0])} in 30 seconds`, clock + 2 * DAY, {
        duration: 31,
        tags: [work.thing[0], work.task.ing]
      });
      made.texts.set(clip.id, spoken(work).slice(0, 3).join(' '));
      tie(clip, post, 'part-of');
    } else if (needsPost && kind < 0.23) {
      // A round-up of much, and a note about nothing in particular.
      const recent = made.videos.slice(-9).map((v) => v.title);
      const post = item(
        'post',
        isGerman ? 'Was dieses Jahr war' : 'Looking back at the year',
        clock
      );
      made.texts.set(post.id, `${recent.join('. ')}.`);
    } else if (needsPost && kind < 0.3) {
      const work = fresh();
      addPost(
        work,
        isGerman ? `Kurz notiert: ${work.town}` : `A short note from ${work.town}`,
        clock
      );
    } else if (needsVideo && needsPost && kind < 0.78) {
      const work = fresh();
      const title = videoTitle(work);
      const at = after(clock);
      // Now and then the text came first.
      const isReversed = chance() < 0.12;
      const video = addVideo(work, title, isReversed ? at : clock);
      tie(video, addPost(work, postTitle(work, title), isReversed ? clock : at));
    } else if (needsVideo && (kind < 0.92 || !needsPost)) {
      const work = fresh();
      addVideo(work, videoTitle(work), clock);
    } else if (needsPost) {
      const work = fresh();
      addPost(work, postTitle(work, videoTitle(work)), clock);
    }
  }
  return made;
}

/** Several catalogues as one: what belongs to different channels meets, as it does at a network of theirs. */
export function together(all: readonly Catalogue[]): Catalogue {
  return {
    videos: all.flatMap((c) => c.videos),
    posts: all.flatMap((c) => c.posts),
    texts: new Map(all.flatMap((c) => [...c.texts])),
    truth: all.flatMap((c) => c.truth)
  };
}
