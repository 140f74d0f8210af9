<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import Names from '$lib/ui/desk/Names.svelte';

  interface Props {
    lane: Lane;
    names: ReadonlyMap<string, string>;
    onchange: () => void;
  }
  let { lane = $bindable(), onchange }: Props = $props();
  /** Minutes as seconds; an empty field asks for nothing. */
  const seconds = (text: string): number | null => (Number(text) > 0 ? Number(text) * 60 : null);
  const count = (text: string): number | null =>
    Number(text) > 0 ? Math.round(Number(text)) : null;
</script>

<div class="flex flex-col gap-3" {onchange}>
  <fieldset class="flex flex-wrap gap-3">
    <legend class="sr-only">Which and in which order</legend>
    {#each [['new', 'Only what comes from now on'], ['newest-first', 'The catalogue, newest first'], ['oldest-first', 'The catalogue, oldest first']] as const as [value, label] (value)}
      <label class="flex items-center gap-1"
        ><input type="radio" name="scope-{lane.id}" {value} bind:group={lane.sift.scope} />
        {label}</label
      >
    {/each}
  </fieldset>
  <div class="grid grid-cols-2 gap-3 md:grid-cols-4">
    <label class="flex flex-col gap-1"
      >At most in all <input
        class="field"
        type="number"
        min="1"
        value={lane.sift.mostInAll ?? ''}
        onchange={(event) => (lane.sift.mostInAll = count(event.currentTarget.value))}
      /></label
    >
    <label class="flex flex-col gap-1"
      >Not older than (days) <input
        class="field"
        type="number"
        min="1"
        value={lane.sift.notOlderThan ?? ''}
        onchange={(event) => (lane.sift.notOlderThan = count(event.currentTarget.value))}
      /></label
    >
    <label class="flex flex-col gap-1"
      >At least (minutes) <input
        class="field"
        type="number"
        min="0"
        step="0.5"
        value={lane.sift.shortest === null ? '' : lane.sift.shortest / 60}
        onchange={(event) => (lane.sift.shortest = seconds(event.currentTarget.value))}
      /></label
    >
    <label class="flex flex-col gap-1"
      >At most (minutes) <input
        class="field"
        type="number"
        min="0"
        step="0.5"
        value={lane.sift.longest === null ? '' : lane.sift.longest / 60}
        onchange={(event) => (lane.sift.longest = seconds(event.currentTarget.value))}
      /></label
    >
    <label class="flex flex-col gap-1"
      >Fewest words <input
        class="field"
        type="number"
        min="1"
        value={lane.sift.fewestWords ?? ''}
        onchange={(event) => (lane.sift.fewestWords = count(event.currentTarget.value))}
      /></label
    >
    <label class="flex flex-col gap-1"
      >Most words <input
        class="field"
        type="number"
        min="1"
        value={lane.sift.mostWords ?? ''}
        onchange={(event) => (lane.sift.mostWords = count(event.currentTarget.value))}
      /></label
    >
  </div>
  <div class="flex flex-wrap gap-4">
    <label class="flex items-center gap-2"
      ><input type="checkbox" bind:checked={lane.sift.publicOnly} /> Public only</label
    >
    <label class="flex items-center gap-2"
      ><input type="checkbox" bind:checked={lane.sift.needsCaptions} /> With captions</label
    >
    <label class="flex items-center gap-2"
      ><input type="checkbox" bind:checked={lane.sift.needsPicture} /> With a picture</label
    >
  </div>
  <div class="grid gap-3 md:grid-cols-2">
    <Names
      label="One of these words must stand in it"
      value={lane.sift.keep}
      onchange={(words) => {
        lane.sift.keep = words;
        onchange();
      }}
    />
    <Names
      label="None of these words may"
      value={lane.sift.drop}
      onchange={(words) => {
        lane.sift.drop = words;
        onchange();
      }}
    />
    <Names
      label="Languages (codes, such as en)"
      value={lane.sift.languages}
      onchange={(codes) => {
        lane.sift.languages = codes;
        onchange();
      }}
    />
    <Names
      label="Categories or tags, one of them"
      value={lane.sift.tags}
      onchange={(tags) => {
        lane.sift.tags = tags;
        onchange();
      }}
    />
  </div>
  <fieldset class="flex flex-wrap items-center gap-3">
    <legend class="float-left pr-3 font-semibold">Other people’s</legend>
    {#each [['never', 'Never'], ['licensed', 'With an open licence, and credit'], ['permitted', 'Also with a permission']] as const as [value, label] (value)}
      <label class="flex items-center gap-1"
        ><input type="radio" name="others-{lane.id}" {value} bind:group={lane.sift.others} />
        {label}</label
      >
    {/each}
    {#if lane.sift.others === 'permitted'}
      <label class="flex flex-1 basis-56 items-center gap-2"
        >Which permission <input
          class="field min-w-0 flex-1"
          placeholder="Who gave it, when, for what"
          bind:value={lane.sift.permission}
        /></label
      >
    {/if}
  </fieldset>
</div>
