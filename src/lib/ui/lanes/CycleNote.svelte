<script lang="ts">
  import type { Cycle } from '$lib/core/lanes/graph.ts';
  import type { Lane } from '$lib/core/lanes/lane.ts';

  interface Props {
    cycle: Cycle;
    lanes: readonly Lane[];
    names: ReadonlyMap<string, string>;
  }
  let { cycle, lanes, names }: Props = $props();
  const id = $props.id();

  /** Pixels: a place, the way from one to the next, and how far the way back hangs down. */
  const [BOX, TALL, WAY, HANG, EDGE] = [168, 44, 190, 64, 12];
  /** Where on its way a lane's filter stands. */
  const FILTER = 18;
  const COLOURS: Record<Lane['make']['kind'], string> = {
    post: 'var(--thread-post)',
    video: 'var(--thread-video)',
    update: 'var(--ink)'
  };
  const width = $derived(cycle.length * BOX + (cycle.length - 1) * WAY + 2 * EDGE);
  const height = TALL + HANG + 2 * EDGE;
  const steps = $derived(
    cycle.map((edge, i) => {
      const lane = lanes.find((l) => l.id === edge.lane);
      const left = EDGE + i * (BOX + WAY);
      const isBack = i === cycle.length - 1;
      return {
        left,
        isBack,
        colour: COLOURS[lane?.make.kind ?? 'update'],
        place: names.get(edge.from) ?? 'A place',
        lane: lane?.name ?? ''
      };
    })
  );
  const middle = EDGE + TALL / 2;
  const low = EDGE + TALL + HANG - 14;
  const backFrom = $derived(EDGE + (cycle.length - 1) * (BOX + WAY) + BOX / 2);
  /** The way back ends in the first place; round one place it leaves and enters side by side. */
  const backTo = $derived(EDGE + BOX / 2 - (cycle.length === 1 ? 40 : 0));
</script>

<div
  class="rounded-container border border-edge bg-sheet p-3 text-sm"
  role="note"
  aria-label="A loop"
>
  <p class="font-semibold">These lanes lead back to where they begin:</p>
  <div class="overflow-x-auto">
    <svg {width} {height} viewBox="0 0 {width} {height}" aria-hidden="true">
      <defs>
        {#each steps as { colour }, i (i)}
          <marker
            id="{id}-{i}"
            viewBox="0 0 8 8"
            refX="7"
            refY="4"
            markerWidth="8"
            markerHeight="8"
            orient="auto-start-reverse"
          >
            <path d="M0 0 8 4 0 8z" fill={colour} />
          </marker>
        {/each}
      </defs>
      {#each steps as { left, isBack, colour, place, lane }, i (i)}
        <rect
          x={left}
          y={EDGE}
          width={BOX}
          height={TALL}
          rx="4"
          fill="var(--sheet)"
          stroke="var(--edge)"
        />
        <foreignObject x={left + 6} y={EDGE} width={BOX - 12} height={TALL}>
          <p class="box">{place}</p>
        </foreignObject>
        {#if isBack}
          <path
            d="M{backFrom} {EDGE + TALL}V{low}H{backTo}V{EDGE + TALL + 2}"
            fill="none"
            stroke={colour}
            stroke-width="2"
            marker-end="url(#{id}-{i})"
          />
          <path
            d="M{backFrom - 9} {EDGE + TALL + FILTER}h18m0 5h-18"
            stroke="var(--ink)"
            stroke-width="2"
          />
          <foreignObject
            x={Math.min(backFrom, backTo) + 12}
            y={low - 22}
            width={Math.max(60, Math.abs(backFrom - backTo) - 24)}
            height="20"
          >
            <p class="way">{lane}</p>
          </foreignObject>
        {:else}
          <path
            d="M{left + BOX} {middle}h{WAY - 2}"
            stroke={colour}
            stroke-width="2"
            marker-end="url(#{id}-{i})"
          />
          <path
            d="M{left + BOX + FILTER} {middle - 9}v18m5 0v-18"
            stroke="var(--ink)"
            stroke-width="2"
          />
          <foreignObject x={left + BOX + 28} y={middle - 23} width={WAY - 44} height="20">
            <p class="way">{lane}</p>
          </foreignObject>
        {/if}
      {/each}
    </svg>
  </div>
  <p class="sr-only">
    {steps.map(({ place, lane }) => `${place} → ${lane} → `).join('')}{steps[0]?.place}
  </p>
  <p>
    <span aria-hidden="true">‖</span> What stops it at each lane: made items carry their origin and are
    never taken; without their marks they are known by their text and their player; and a lane that takes
    far more than usual is paused.
  </p>
</div>

<style>
  .box {
    display: flex;
    height: 44px;
    align-items: center;
    justify-content: center;
    overflow: hidden;
    font-size: 0.8125rem;
    line-height: 1.1;
    text-align: center;
  }
  .way {
    overflow: hidden;
    font-size: 0.8125rem;
    text-align: center;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
