import { callOrReturn, getExtensionField, Node } from '@tiptap/core';
import { goToNextCell, tableEditing } from '@tiptap/pm/tables';

declare module '@tiptap/core' {
  // The parameters must be named as they are there.
  // eslint-disable-next-line @typescript-eslint/no-unused-vars
  interface NodeConfig<Options, Storage> {
    /** What a node is to the commands for tables. */
    tableRole?: 'table' | 'row' | 'cell' | 'header_cell';
  }
}

/** Spans are kept: the tables of others have them. */
const spans = () => ({
  colspan: { default: 1 },
  rowspan: { default: 1 },
  colwidth: { default: null, rendered: false }
});

const cell = (name: string, tag: 'td' | 'th', tableRole: 'cell' | 'header_cell') =>
  Node.create({
    name,
    content: 'paragraph+',
    isolating: true,
    tableRole,
    addAttributes: () => ({ ...spans(), ...(tag === 'th' ? { scope: { default: null } } : {}) }),
    parseHTML: () => [{ tag }],
    renderHTML: ({ HTMLAttributes }) => [tag, HTMLAttributes, 0]
  });

const Table = Node.create({
  name: 'table',
  group: 'block',
  content: 'tableRow+',
  isolating: true,
  tableRole: 'table',
  parseHTML: () => [{ tag: 'table' }],
  renderHTML: () => ['table', ['tbody', 0]],
  extendNodeSchema(extension) {
    const context = {
      name: extension.name,
      options: extension.options,
      storage: extension.storage
    };
    return { tableRole: callOrReturn(getExtensionField(extension, 'tableRole', context)) };
  },
  addProseMirrorPlugins: () => [tableEditing()],
  addKeyboardShortcuts() {
    const go = (by: 1 | -1) => () => goToNextCell(by)(this.editor.state, this.editor.view.dispatch);
    return { Tab: go(1), 'Shift-Tab': go(-1) };
  }
});

const Row = Node.create({
  name: 'tableRow',
  content: '(tableCell | tableHeader)*',
  tableRole: 'row',
  parseHTML: () => [{ tag: 'tr' }],
  renderHTML: () => ['tr', 0]
});

export const tableExtensions = [
  Table,
  Row,
  cell('tableCell', 'td', 'cell'),
  cell('tableHeader', 'th', 'header_cell')
];
