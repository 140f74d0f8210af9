<script lang="ts">
  interface Props {
    picture: { url: string };
    subject: { x: number; y: number };
  }
  let { picture, subject = $bindable() }: Props = $props();
  const STEP = 0.05;
  const id = $props.id();
  const within = (share: number) => Math.min(1, Math.max(0, share));
  const percent = (share: number) => `${Math.round(share * 100)} %`;

  function point(event: PointerEvent & { currentTarget: HTMLElement }) {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    subject = {
      x: within((event.clientX - left) / width),
      y: within((event.clientY - top) / height)
    };
  }
  function onkeydown(event: KeyboardEvent) {
    const [dx, dy] = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1]
    }[event.key] ?? [0, 0];
    if (!dx && !dy) return;
    event.preventDefault();
    subject = { x: within(subject.x + (dx ?? 0) * STEP), y: within(subject.y + (dy ?? 0) * STEP) };
  }
</script>

<div class="flex items-center gap-3">
  <div
    class="relative w-40 shrink-0 cursor-crosshair touch-none"
    role="group"
    aria-labelledby={id}
    onpointerdown={point}
    onpointermove={point}
  >
    <img src={picture.url} alt="" class="block w-full rounded-base" draggable="false" />
    <!-- Two values in one: the slider tells both in words. -->
    <div
      role="slider"
      tabindex="0"
      aria-label="What it is cut around"
      aria-valuenow={Math.round(subject.x * 100)}
      aria-valuetext="{percent(subject.x)} from the left, {percent(subject.y)} from the top"
      class="absolute size-6 -translate-1/2 rounded-full border-2 border-ink bg-sheet/50 outline-offset-2"
      style="left:{subject.x * 100}%;top:{subject.y * 100}%"
      {onkeydown}
    ></div>
  </div>
  <p {id} class="text-quiet">
    Places that show another shape cut the picture around the ring. Point at what must stay, or move
    it with the arrow keys.
  </p>
</div>
