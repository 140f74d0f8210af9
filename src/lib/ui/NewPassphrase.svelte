<script lang="ts">
  interface Props {
    /** The passphrase once both fields agree on one that is long enough, else empty. */
    value: string;
    /** What it means to lose it. */
    note: string;
  }
  let { value = $bindable(), note }: Props = $props();
  const LEAST = 10;
  const id = $props.id();
  let passphrase = $state('');
  let again = $state('');
  const isShort = $derived(passphrase !== '' && passphrase.length < LEAST);
  const differs = $derived(again !== '' && again !== passphrase);

  function take() {
    value = passphrase.length >= LEAST && again === passphrase ? passphrase : '';
  }
</script>

{#snippet field(label: string, typed: string, take: (text: string) => void)}
  <label class="flex flex-col gap-1 font-semibold">
    {label}
    <input
      class="field font-normal"
      type="password"
      autocomplete="new-password"
      value={typed}
      oninput={(event) => take(event.currentTarget.value)}
      aria-describedby="{id}-help"
    />
  </label>
{/snippet}

{@render field('Passphrase', passphrase, (text) => {
  passphrase = text;
  take();
})}
{@render field('Repeat the passphrase', again, (text) => {
  again = text;
  take();
})}
<p id="{id}-help" class="text-quiet" aria-live="polite">
  {#if isShort}At least {LEAST} characters.
  {:else if differs}The two are not the same.
  {:else}{note}{/if}
</p>
