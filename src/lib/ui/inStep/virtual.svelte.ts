import {
  elementScroll,
  observeElementOffset,
  observeElementRect,
  Virtualizer,
  type VirtualItem
} from '@tanstack/virtual-core';

/** Rows of one height in a scrolling element, of which only those in sight are drawn. */
export class Rows {
  items = $state.raw<VirtualItem[]>([]);
  total = $state(0);
  readonly #virtualizer: Virtualizer<HTMLElement, Element>;

  constructor(
    element: () => HTMLElement | undefined,
    size: () => { count: number; height: number }
  ) {
    const options = () => ({
      count: size().count,
      getScrollElement: () => element() ?? null,
      estimateSize: () => size().height,
      overscan: 3,
      scrollToFn: elementScroll,
      observeElementRect,
      observeElementOffset,
      onChange: () => this.#read()
    });
    this.#virtualizer = new Virtualizer(options());
    $effect(() => this.#virtualizer._didMount());
    $effect(() => {
      this.#virtualizer.setOptions(options());
      this.#virtualizer._willUpdate();
      this.#virtualizer.measure();
      this.#read();
    });
  }

  show(index: number): void {
    this.#virtualizer.scrollToIndex(index, { align: 'auto' });
  }

  #read(): void {
    this.items = this.#virtualizer.getVirtualItems();
    this.total = this.#virtualizer.getTotalSize();
  }
}
