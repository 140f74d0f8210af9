<script lang="ts">
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { formatDateTime, plural } from '$lib/ui/messages.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { faultMessage } from './archiveMessages.ts';
  import ImportPlan from './ImportPlan.svelte';
  import { ImportState } from './importState.svelte.ts';

  const view = new ImportState();
  let isOver = $state(false);
  const id = $props.id();

  function ondrop(event: DragEvent) {
    event.preventDefault();
    isOver = false;
    const file = event.dataTransfer?.files[0];
    if (file && !view.isBusy) void view.choose(file);
  }
  async function undo() {
    if (await view.undo()) location.reload();
    else deck.say('It can no longer be undone.');
  }
</script>

<section
  aria-labelledby="{id}-title"
  class="flex flex-col gap-3 rounded-container text-sm {isOver ? 'outline-2 outline-ink' : ''}"
  ondragover={(event) => {
    event.preventDefault();
    isOver = true;
  }}
  ondragleave={() => (isOver = false)}
  {ondrop}
>
  <h2 id="{id}-title" class="text-base font-semibold">Import an archive</h2>
  {#if view.imported !== null}
    <p role="status">
      {view.imported === 0
        ? 'Everything in the archive was already here.'
        : `Imported ${plural(view.imported, 'row', 'rows')} from “${view.file?.name}”.`}
    </p>
    <div class="flex flex-wrap gap-2">
      <!-- Loaded anew: every view begins with what is here now. -->
      <a class="strong btn btn-sm" href="/" data-sveltekit-reload>Go to In step</a>
      {#if view.imported > 0}<button class="plain btn btn-sm" onclick={undo}>Undo the import</button
        >{/if}
      <button class="bare btn btn-sm" onclick={() => view.clear()}>Import another</button>
    </div>
  {:else}
    <p>
      Into this browser, or merged with what is here. You see what it would change first, and can
      undo it for a day.
    </p>
    <div class="flex flex-wrap items-center gap-3">
      <label
        class="plain btn btn-sm focus-within:outline-2 {view.isBusy
          ? 'pointer-events-none opacity-60'
          : ''}"
      >
        Choose an archive…
        <input
          type="file"
          accept=".zip,application/zip"
          class="sr-only"
          disabled={view.isBusy}
          onchange={(event) => {
            const file = event.currentTarget.files?.[0];
            event.currentTarget.value = '';
            if (file) void view.choose(file);
          }}
        />
      </label>
      {#if view.file}<span class="min-w-0 truncate">{view.file.name}</span>{:else}<span
          class="text-quiet">or drop it here</span
        >{/if}
      {#if view.isBusy && !view.examined}<span role="status">Checking…</span>{/if}
    </div>
    {#if view.fault}
      {@const words = faultMessage(view.fault)}
      <p role="alert"><strong>{words.what}</strong> {words.todo}</p>
    {/if}
    {#if view.problem}<ProblemNote problem={view.problem} />{/if}
    {#if view.examined}
      <p>
        Made {formatDateTime(view.examined.made)}, {plural(view.examined.files, 'file', 'files')}.
      </p>
      <ImportPlan {view} examined={view.examined} />
    {/if}
  {/if}
</section>
