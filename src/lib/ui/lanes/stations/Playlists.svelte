<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import type { Place, Problem } from '$lib/core/model/place.ts';
  import { playlistsOf } from '$lib/data/playlists.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { plural } from '$lib/ui/messages.ts';
  import { connectPlaylist, findPlaylists, readPlaylist } from '$lib/work/playlists.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';

  interface Props {
    source: Lane['source'];
    channels: readonly Place[];
  }
  let { source = $bindable(), channels }: Props = $props();
  let address = $state('');
  let problem = $state.raw<Problem | null>(null);
  let hasLooked = $state(false);
  const known = live(() => {
    const ids = channels.map((c) => c.id);
    return () => playlistsOf(ids);
  });

  async function find() {
    problem = null;
    for (const channel of channels)
      problem = (await attempt(() => findPlaylists(channel))).problem ?? problem;
    hasLooked = true;
  }
  async function add() {
    const [channel] = channels;
    if (!channel) return;
    const added = await attempt(() => connectPlaylist(channel, address));
    problem = added.problem;
    if (added.value) {
      address = '';
      await choose(added.value.url, true);
    }
  }
  async function choose(url: string, isOn: boolean) {
    problem = null;
    const playlist = known.value?.find((p) => p.url === url);
    if (isOn && playlist?.read === '')
      problem = (
        await attempt(() =>
          runTask(`Reading “${playlist.title}”`, (signal) => readPlaylist(playlist, signal))
        )
      ).problem;
    const rest = source.playlists.filter((p) => p !== url);
    source.playlists = isOn ? [...rest, url] : rest;
  }
</script>

<fieldset class="flex flex-col gap-1">
  <legend class="font-semibold">Only what is in a playlist</legend>
  {#each known.value ?? [] as { url, title, members, read } (url)}
    <label class="flex items-center gap-2">
      <input
        type="checkbox"
        checked={source.playlists.includes(url)}
        onchange={(event) => choose(url, event.currentTarget.checked)}
      />
      {title}{read ? `, ${plural(members.length, 'item', 'items')}` : ''}
    </label>
  {:else}
    {#if hasLooked}<p class="text-quiet">The page of the channel names none.</p>{/if}
  {/each}
  <div class="flex flex-wrap items-center gap-2">
    <button class="plain btn btn-sm" onclick={find}>Find playlists</button>
    <input
      class="field min-w-0 flex-1 basis-40"
      aria-label="Address of a playlist"
      placeholder="Or the address of one"
      bind:value={address}
      onchange={(event) => event.stopPropagation()}
      onkeydown={(event) => event.key === 'Enter' && address.trim() && add()}
    />
    <button class="plain btn btn-sm" disabled={!address.trim()} onclick={add}>Add</button>
  </div>
  {#if problem}<ProblemNote {problem} />{/if}
</fieldset>
