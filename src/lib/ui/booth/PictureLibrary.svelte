<script lang="ts">
  import { keptFile } from '$lib/data/media.ts';
  import { libraryPictures, patchLibraryPicture, removeLibraryPicture } from '$lib/data/library.ts';
  import { altOf, type LibraryPicture } from '$lib/core/narration/pictures/library.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { droppedFiles } from '$lib/ui/droppedFiles.ts';
  import { addToLibrary, type FoundFile } from '$lib/work/library.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  const pictures = live(() => libraryPictures);
  let words = $state('');
  let message = $state('');
  let isOver = $state(false);
  /** Shown at once: a library may be large. */
  const MOST = 24;
  const sorted = $derived(
    (pictures.value ?? []).toSorted(
      (a, b) => a.path.localeCompare(b.path) || (a.second ?? 0) - (b.second ?? 0)
    )
  );
  const wanted = $derived(words.toLowerCase().split(/\s+/).filter(Boolean));
  const found = $derived(
    sorted.filter((p) => {
      const told = `${p.path} ${p.words}`.toLowerCase();
      return wanted.every((word) => told.includes(word));
    })
  );

  async function add(files: readonly FoundFile[]) {
    if (files.length === 0) return;
    const { value } = await attempt(() => addToLibrary(files));
    if (!value) return;
    const unread =
      value.unread.length > 0
        ? ` ${plural(value.unread.length, 'file is', 'files are')} neither a picture nor a clip that can be played here: ${value.unread.slice(0, 3).join(', ')}.`
        : '';
    message = `${plural(value.added, 'file was', 'files were')} added.${unread}`;
  }
  function choose(event: Event & { currentTarget: HTMLInputElement }) {
    const files = [...(event.currentTarget.files ?? [])];
    event.currentTarget.value = '';
    void add(files.map((file) => ({ file, path: file.webkitRelativePath || file.name })));
  }
  async function drop(event: DragEvent) {
    event.preventDefault();
    isOver = false;
    if (event.dataTransfer) await add(await droppedFiles(event.dataTransfer));
  }
  /** Draws a kept picture while its element is there. */
  function kept(id: string) {
    return (image: HTMLImageElement) => {
      let url = '';
      void keptFile(id).then((file) => {
        if (file) image.src = url = URL.createObjectURL(file);
      });
      return () => URL.revokeObjectURL(url);
    };
  }
  function use(picture: LibraryPicture) {
    const { scene } = booth;
    if (!scene) return;
    booth.changeScene({
      kind: scene.picture || scene.lines.length === 0 ? scene.kind : 'beside',
      picture: { url: picture.id, alt: altOf(picture), shown: 'fitted', credit: picture.credit }
    });
  }
</script>

<section aria-labelledby="library-title" class="flex flex-col gap-2 text-sm">
  <h2 id="library-title" class="text-base font-semibold">Your pictures</h2>
  <div
    role="group"
    aria-label="Add pictures"
    class="flex flex-col items-start gap-2 rounded-base border border-dashed p-2 {isOver
      ? 'border-ink bg-sheet'
      : 'border-edge'}"
    ondragover={(event) => {
      event.preventDefault();
      isOver = true;
    }}
    ondragleave={() => (isOver = false)}
    ondrop={drop}
  >
    <p>Drop pictures, clips or folders here. They stay in this browser.</p>
    <span class="flex flex-wrap gap-2">
      <label class="plain btn cursor-pointer btn-sm">
        Add files
        <input class="sr-only" type="file" accept="image/*,video/*" multiple onchange={choose} />
      </label>
      <label class="plain btn cursor-pointer btn-sm">
        Add a folder
        <input class="sr-only" type="file" webkitdirectory multiple onchange={choose} />
      </label>
    </span>
  </div>
  {#if message}<p role="status">{message}</p>{/if}
  {#if pictures.value && pictures.value.length > 0}
    <input
      class="field"
      type="search"
      aria-label="Find in your pictures"
      placeholder="Find by name or words"
      bind:value={words}
    />
    <ul class="flex flex-col gap-2" aria-label="Your pictures">
      {#each found.slice(0, MOST) as picture (picture.id)}
        <li class="grid grid-cols-[5rem_1fr] gap-2">
          <button
            class="overflow-hidden rounded-base border border-edge hover:border-ink"
            aria-label="Show {altOf(picture) || picture.path} in this scene"
            onclick={() => use(picture)}
          >
            <img
              alt=""
              class="aspect-video w-full bg-black object-contain"
              {@attach kept(picture.id)}
            />
          </button>
          <details class="min-w-0">
            <summary class="truncate" title={picture.path}
              >{altOf(picture) || picture.path}{#if picture.second !== null}, {Math.round(
                  picture.second
                )} s{/if}</summary
            >
            <label class="mt-1 flex flex-col"
              >What it shows
              <input
                class="field"
                value={picture.words}
                onchange={(event) =>
                  patchLibraryPicture(picture.id, { words: event.currentTarget.value.trim() })}
              /></label
            >
            <label class="flex flex-col"
              >Credit
              <input
                class="field"
                value={picture.credit}
                onchange={(event) =>
                  patchLibraryPicture(picture.id, { credit: event.currentTarget.value.trim() })}
              /></label
            >
            <button class="bare btn btn-sm" onclick={() => removeLibraryPicture(picture.id)}
              >Remove</button
            >
          </details>
        </li>
      {/each}
    </ul>
    {#if found.length > MOST}
      <p class="text-quiet">{found.length - MOST} more. Type a word to find them.</p>
    {:else if found.length === 0}
      <p>No picture has these words.</p>
    {/if}
  {/if}
</section>
