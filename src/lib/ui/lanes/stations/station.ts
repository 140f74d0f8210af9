import type { Component } from 'svelte';
import type { Lane } from '$lib/core/lanes/lane.ts';

/** What the form of each station is given. */
export interface StationProps {
  lane: Lane;
  /** Of places and networks, by id. */
  names: ReadonlyMap<string, string>;
}
export type StationForm = Component<StationProps, object, 'lane'>;
