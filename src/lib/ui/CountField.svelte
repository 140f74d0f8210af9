<script lang="ts">
  interface Props {
    label: string;
    /** Null is an empty field, which asks for nothing. */
    value: number | null;
    /** What one in the field stands for: 60 for minutes that are kept as seconds. */
    unit?: number;
    step?: number;
  }
  let { label, value = $bindable(), unit = 1, step = 1 }: Props = $props();

  function take(text: string) {
    const given = Number(text);
    // What is not a number above nothing asks for nothing.
    value = given > 0 ? (step >= 1 ? Math.max(1, Math.round(given)) : given) * unit : null;
  }
</script>

<label class="flex flex-col gap-1"
  >{label}
  <input
    class="field"
    type="number"
    min="0"
    {step}
    value={value === null ? '' : value / unit}
    onchange={(event) => take(event.currentTarget.value)}
  /></label
>
