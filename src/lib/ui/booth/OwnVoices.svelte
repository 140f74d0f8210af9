<script lang="ts">
  import { languageOfVoice } from '$lib/core/narration/voiceFile.ts';
  import type { OwnVoice } from '$lib/core/narration/voices.ts';
  import ConfirmButton from '$lib/ui/ConfirmButton.svelte';
  import { languageName, paceMessage, voiceFileMessage } from '$lib/ui/boothMessages.ts';
  import { formatSize } from '$lib/ui/formatSize.ts';
  import { forgetVoice, importVoice } from '$lib/work/ownVoices.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';

  interface Props {
    voices: readonly OwnVoice[];
    /** Called with a voice that was just added. */
    onadded: (voice: OwnVoice) => void;
  }
  let { voices, onadded }: Props = $props();
  let message = $state('');

  async function add(event: Event & { currentTarget: HTMLInputElement }) {
    const files = [...(event.currentTarget.files ?? [])];
    event.currentTarget.value = '';
    if (files.length === 0) return;
    const { value, problem } = await attempt(() => importVoice(files));
    message = value?.problem
      ? voiceFileMessage(value.problem)
      : problem
        ? 'The voice could not be kept. There may be no room left in the browser’s storage.'
        : '';
    if (value?.voice) onadded(value.voice);
  }
</script>

<details>
  <summary class="font-semibold"
    >Your voice files{voices.length > 0 ? ` (${voices.length})` : ''}</summary
  >
  <div class="flex flex-col gap-2 py-2">
    <ul class="flex flex-col gap-2">
      {#each voices as voice (voice.id)}
        <li class="flex flex-col gap-1 border-l-2 border-line pl-2">
          <span class="flex items-center gap-2">
            <span class="min-w-0 flex-1 truncate font-semibold" title={voice.name}
              >{voice.name}</span
            >
            <ConfirmButton
              label="Remove"
              confirm="Remove this voice"
              onconfirm={() => forgetVoice(voice.id)}
            />
          </span>
          <span class="text-quiet"
            >{languageName(languageOfVoice(voice.file))}, {formatSize(voice.bytes)}. {paceMessage(
              voice.pace
            )}.</span
          >
          {#if voice.card}
            <details>
              <summary>Licence and maker</summary>
              <p class="max-h-40 overflow-y-auto break-words whitespace-pre-wrap">{voice.card}</p>
            </details>
          {:else}
            <span>It came without a word on its licence. Check that you may publish with it.</span>
          {/if}
        </li>
      {/each}
    </ul>
    <label class="plain btn cursor-pointer self-start btn-sm">
      Add a voice file
      <input
        class="sr-only"
        type="file"
        accept=".onnx,.json,.md,.txt,text/*"
        multiple
        onchange={add}
      />
    </label>
    <p class="text-quiet">
      An .onnx file with its .json file, and the text of its licence if there is one. They stay in
      this browser.
    </p>
    {#if message}<p role="alert">{message}</p>{/if}
  </div>
</details>
