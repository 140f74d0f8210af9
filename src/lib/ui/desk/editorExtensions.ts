import { Extension, Mark, Node } from '@tiptap/core';
import Image from '@tiptap/extension-image';
import { Focus } from '@tiptap/extensions';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import StarterKit from '@tiptap/starter-kit';
import DOMPurify from 'dompurify';
import { tableExtensions } from './tables.ts';

/** Blocks keep the seconds of video that they come from, also when they are split or joined. */
const Seconds = Extension.create({
  name: 'seconds',
  addGlobalAttributes() {
    const second = (name: 'start' | 'end') => ({
      default: null,
      parseHTML: (element: HTMLElement) => element.getAttribute(`data-${name}`),
      renderHTML: (attributes: Record<string, unknown>) =>
        attributes[name] ? { [`data-${name}`]: attributes[name] } : {}
    });
    return [
      {
        types: ['paragraph', 'heading'],
        attributes: { start: second('start'), end: second('end') }
      }
    ];
  }
});

/** What is shown as a whole and not written in: players, and what is folded away. */
const whole = (name: string, tag: string, label: string) =>
  Node.create({
    name,
    group: 'block',
    atom: true,
    draggable: true,
    addAttributes: () => ({ html: { default: '' } }),
    parseHTML: () => [
      { tag, getAttrs: (element: HTMLElement) => ({ html: element.outerHTML }) as { html: string } }
    ],
    renderHTML({ node }) {
      return fromHtml(String(node.attrs.html)) ?? document.createElement('div');
    },
    addNodeView:
      () =>
      ({ node }) => {
        const dom = document.createElement('div');
        dom.className = 'whole';
        dom.setAttribute('aria-label', label);
        const inner = fromHtml(String(node.attrs.html));
        if (inner) dom.append(inner);
        return { dom, ignoreMutation: () => true };
      }
  });

/** Cleaning a long transcript takes its time, and the same few elements are asked for again and again. */
const cleaned = new Map<string, HTMLElement | null>();
const MAX_CLEANED = 12;

/** An element from its HTML, cleaned. */
function fromHtml(html: string): HTMLElement | null {
  let element = cleaned.get(html);
  if (element === undefined) {
    const clean = DOMPurify.sanitize(html, {
      ADD_TAGS: ['iframe'],
      ADD_ATTR: ['allowfullscreen', 'loading'],
      FORBID_TAGS: ['style', 'form']
    });
    const template = document.createElement('template');
    template.innerHTML = clean;
    element = template.content.firstElementChild as HTMLElement | null;
    if (cleaned.size >= MAX_CLEANED) cleaned.clear();
    cleaned.set(html, element);
  }
  return element?.cloneNode(true) as HTMLElement | null;
}

/** A picture in its figure, as posts have it. */
const Picture = Image.extend({
  addAttributes() {
    return {
      ...this.parent?.(),
      loading: { default: null },
      width: { default: null },
      height: { default: null }
    };
  },
  parseHTML: () => [{ tag: 'figure img[src]' }, { tag: 'img[src]' }],
  renderHTML({ HTMLAttributes }) {
    return ['figure', ['img', HTMLAttributes]];
  }
});

const Time = Mark.create({
  name: 'time',
  addAttributes: () => ({
    datetime: {
      default: null,
      parseHTML: (element: HTMLElement) => element.getAttribute('datetime'),
      renderHTML: (attributes: Record<string, unknown>) => ({ datetime: attributes.datetime })
    }
  }),
  parseHTML: () => [{ tag: 'time' }],
  renderHTML: ({ HTMLAttributes }) => ['time', HTMLAttributes, 0]
});

const pointedKey = new PluginKey<DecorationSet>('pointed');

/** Blocks that come from the seconds pointed at are marked, and none is written to. */
const Pointed = Extension.create({
  name: 'pointed',
  addProseMirrorPlugins: () => [
    new Plugin<DecorationSet>({
      key: pointedKey,
      state: {
        init: () => DecorationSet.empty,
        apply(transaction, marks) {
          const seconds = transaction.getMeta(pointedKey) as
            { start: number; end: number } | null | undefined;
          if (seconds === undefined) return marks.map(transaction.mapping, transaction.doc);
          if (seconds === null) return DecorationSet.empty;
          const found: Decoration[] = [];
          transaction.doc.descendants((node, at) => {
            const [start, end] = [Number(node.attrs.start), Number(node.attrs.end)];
            if (!node.isTextblock || node.attrs.start === null) return;
            if (
              start < seconds.end - 0.05 &&
              end > seconds.start + 0.05 &&
              node.type.name !== 'heading'
            )
              found.push(Decoration.node(at, at + node.nodeSize, { class: 'lit' }));
          });
          return DecorationSet.create(transaction.doc, found);
        }
      },
      props: { decorations: (state) => pointedKey.getState(state) }
    })
  ]
});
export { pointedKey };

export const extensions = [
  StarterKit.configure({
    heading: { levels: [2, 3, 4] },
    // Links are set by the user, never unseen; looking for them takes long in a long text, too.
    link: {
      autolink: false,
      openOnClick: false,
      HTMLAttributes: { rel: null, target: null, class: null }
    },
    underline: false,
    // The history is that of the whole desk.
    undoRedo: false,
    trailingNode: false
  }),
  Seconds,
  ...tableExtensions,
  Picture,
  Time,
  Pointed,
  Focus.configure({ className: 'has-caret', mode: 'deepest' }),
  whole('frame', 'figure.video', 'The video'),
  whole('folded', 'details', 'Folded away')
];
