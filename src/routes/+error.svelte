<script lang="ts">
  import { page } from '$app/state';
  import EmptyState from '$lib/ui/EmptyState.svelte';
</script>

<EmptyState title={page.status === 404 ? 'There is no such page' : 'Something went wrong'}>
  <p>{page.error?.message}</p>
  {#snippet actions()}<a class="strong btn btn-sm" href="/">Go to In step</a>{/snippet}
</EmptyState>
