<script lang="ts">
  import { TagsInput } from '@skeletonlabs/skeleton-svelte';

  interface Props {
    label: string;
    value: string[];
    onchange: (value: string[]) => void;
  }
  let { label, value, onchange }: Props = $props();
</script>

<TagsInput
  {value}
  onValueChange={(details) => onchange(details.value)}
  addOnPaste
  blurBehavior="add"
  delimiter=","
>
  <TagsInput.Label class="text-sm font-semibold">{label}</TagsInput.Label>
  <TagsInput.Control class="field flex flex-wrap gap-1">
    <TagsInput.Context>
      {#snippet children(tagsInput)}
        {#each tagsInput().value as name, index (index)}
          <TagsInput.Item value={name} {index}>
            <TagsInput.ItemPreview class="flex items-center rounded-base bg-marked px-1.5 text-sm">
              <TagsInput.ItemText>{name}</TagsInput.ItemText>
              <TagsInput.ItemDeleteTrigger class="pl-1" aria-label="Remove {name}"
                >×</TagsInput.ItemDeleteTrigger
              >
            </TagsInput.ItemPreview>
            <TagsInput.ItemInput class="field" />
          </TagsInput.Item>
        {/each}
      {/snippet}
    </TagsInput.Context>
    <TagsInput.Input
      class="min-w-24 flex-1 bg-transparent outline-none"
      placeholder="Type, then Enter"
    />
  </TagsInput.Control>
  <TagsInput.HiddenInput />
</TagsInput>
