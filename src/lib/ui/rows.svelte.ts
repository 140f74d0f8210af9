import {
  elementScroll,
  observeElementOffset,
  observeElementRect,
  Virtualizer,
  type VirtualItem
} from '@tanstack/virtual-core';

interface RowSizes {
  count: number;
  /** Pixels of a row; of rows that are measured, about. */
  height: number;
  /** Pixels above the first row in what is scrolled. */
  above?: number;
  /** What a row is known by wherever it stands, for rows that are measured. */
  keyOf?: (index: number) => string | number;
}

/** Rows in a scrolling element, of which only those in sight are drawn. */
export class Rows {
  items = $state.raw<VirtualItem[]>([]);
  total = $state(0);
  readonly #virtualizer: Virtualizer<HTMLElement, HTMLElement>;

  constructor(element: () => HTMLElement | undefined, sizes: () => RowSizes) {
    const options = () => {
      const { count, height, above = 0, keyOf } = sizes();
      return {
        count,
        getScrollElement: () => element() ?? null,
        estimateSize: () => height,
        scrollMargin: above,
        ...(keyOf && { getItemKey: keyOf }),
        overscan: 3,
        scrollToFn: elementScroll,
        observeElementRect,
        observeElementOffset,
        onChange: () => this.#read()
      };
    };
    let height = sizes().height;
    this.#virtualizer = new Virtualizer(options());
    $effect(() => this.#virtualizer._didMount());
    $effect(() => {
      this.#virtualizer.setOptions(options());
      this.#virtualizer._willUpdate();
      // What was measured stays true until rows are of another height altogether.
      if (!sizes().keyOf || sizes().height !== height) this.#virtualizer.measure();
      height = sizes().height;
      this.#read();
    });
  }

  show(index: number): void {
    this.#virtualizer.scrollToIndex(index, { align: 'auto' });
  }

  /** Takes the height of a drawn row, which says its place as `data-index`, now and when it changes. */
  measure(row: HTMLElement): void {
    this.#virtualizer.measureElement(row);
  }

  #read(): void {
    this.items = this.#virtualizer.getVirtualItems();
    this.total = this.#virtualizer.getTotalSize();
  }
}
