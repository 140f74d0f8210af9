<script lang="ts">
  import BrowserRoom from '$lib/ui/archive/BrowserRoom.svelte';
  import DailyCopy from '$lib/ui/archive/DailyCopy.svelte';
  import ImportArchive from '$lib/ui/archive/ImportArchive.svelte';
  import MakeArchive from '$lib/ui/archive/MakeArchive.svelte';
</script>

<svelte:head><title>Archive · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-5xl flex-col gap-6 p-4">
    <h1 class="text-lg font-semibold">Archive</h1>
    <div class="grid items-start gap-x-10 gap-y-6 lg:grid-cols-2">
      <MakeArchive />
      <div class="flex flex-col gap-6">
        <BrowserRoom />
        <DailyCopy />
      </div>
    </div>
    <ImportArchive />
  </div>
</div>
