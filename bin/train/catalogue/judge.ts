import type { PairModel } from '../../../src/lib/core/twins/likeness/pairModel.ts';
import { proposePairs } from '../../../src/lib/core/twins/likeness/propose.ts';
import type { ToldItem } from '../../../src/lib/core/twins/likeness/told.ts';
import type { Catalogue } from './catalogue.ts';

export function toldIn({ videos, posts, texts }: Catalogue): [ToldItem[], ToldItem[]] {
  const told = (items: Catalogue['videos']) =>
    items.map((item) => ({ item, text: texts.get(item.id) ?? '' }));
  return [told(videos), told(posts)];
}

export interface Judged {
  twins: number;
  /** Of the sure list: the share that is right, and the share of all twins that it has. */
  precision: number;
  recall: number;
  /** Share of all twins among the sure and the doubtful. */
  withDoubtful: number;
  doubtful: number;
  /** Of what belongs together otherwise than one to one: the share that is proposed so, and that of these that is right. */
  others: { recall: number; precision: number };
}

export function judge(catalogue: Catalogue, model?: PairModel): Judged {
  const twins = new Set(
    catalogue.truth.filter((t) => t.relation === 'twin').map((t) => `${t.video} ${t.post}`)
  );
  const all = proposePairs(...toldIn(catalogue), {
    refused: new Set(),
    ...(model && { model })
  });
  const proposals = all;
  const related = new Map(catalogue.truth.map((t) => [`${t.video} ${t.post}`, t.relation]));
  const [told, found] = [
    catalogue.truth.filter((t) => t.relation !== 'twin'),
    all.filter((p) => p.relation !== 'twin')
  ];
  const agreed = found.filter((p) => related.get(`${p.video} ${p.post}`) === p.relation).length;
  const isRight = (p: { video: string; post: string }) => twins.has(`${p.video} ${p.post}`);
  const sure = proposals.filter((p) => p.isSure);
  const right = sure.filter(isRight).length;
  return {
    twins: twins.size,
    precision: right / (sure.length || 1),
    recall: right / twins.size,
    withDoubtful: proposals.filter(isRight).length / twins.size,
    doubtful: proposals.length - sure.length,
    others: {
      recall: agreed / (told.length || 1),
      precision: agreed / (found.length || 1)
    }
  };
}
