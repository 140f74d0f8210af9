import type { Line } from './line.ts';

/** A stretch of a script of one kind. */
export interface ScriptPart {
  kind: 'title' | 'section' | 'text' | 'list' | 'table' | 'quote' | 'picture' | 'aside' | 'end';
  /** The block of the post, or -1. */
  block: number;
  lines: Line[];
  picture?: { url: string; alt: string };
  /** Whose words a quotation is. */
  by?: string;
  /** Whether the items of a list are steps. */
  isOrdered?: boolean;
  /** A table by rows, its heads first. */
  rows?: readonly (readonly string[])[];
}
