/** Threading and treadling of a drawdown, and its two colours. */
export interface Draft {
  threading: number[];
  tieUp: number[][];
  treadling: number[];
  warp: string;
  weft: string;
}

/** What the picture of an upload shows of the studio, drawn from plain shapes. */
export type SceneName =
  'loom' | 'shuttle' | 'skeins' | 'vat' | 'board' | 'bobbin' | 'draft' | 'reed' | 'blanket' | 'hem';
