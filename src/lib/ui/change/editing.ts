import { baseKeymap, chainCommands, exitCode, toggleMark } from 'prosemirror-commands';
import { history, redo, undo } from 'prosemirror-history';
import { keymap } from 'prosemirror-keymap';
import { liftListItem, sinkListItem, splitListItem, wrapInList } from 'prosemirror-schema-list';
import { EditorState, Plugin, Selection, type Command } from 'prosemirror-state';
import type { Node } from 'prosemirror-model';
import { schema } from './schema';

/** Commands and keys of a text. */

const { marks, nodes } = schema;

const lineBreak: Command = chainCommands(exitCode, (state, dispatch) => {
  dispatch?.(state.tr.replaceSelectionWith(nodes['hard_break']!.create()).scrollIntoView());
  return true;
});

export const TOOLS: readonly { readonly name: string; readonly says: string; readonly command: Command }[] = [
  { name: 'strong', says: 'Strong', command: toggleMark(marks['strong']!) },
  { name: 'em', says: 'Emphasis', command: toggleMark(marks['em']!) },
  { name: 'sub', says: 'Subscript', command: toggleMark(marks['sub']!) },
  { name: 'sup', says: 'Superscript', command: toggleMark(marks['sup']!) },
  { name: 'list', says: 'List', command: wrapInList(nodes['bullet_list']!) },
  { name: 'numbers', says: 'Numbered list', command: wrapInList(nodes['ordered_list']!) },
];

/** How many places a text has in which something is answered. */
function slotsIn(doc: Node): number {
  let found = 0;
  doc.descendants(
    (node) => void (found += node.type.name === 'slot' || node.type.name === 'slot_block' ? 1 : 0),
  );
  return found;
}

/** What is answered in a text can be moved in it, and neither typed over nor doubled. */
const keepsSlots = new Plugin({
  filterTransaction: (tr, state) => !tr.docChanged || slotsIn(tr.doc) === slotsIn(state.doc),
});

const plugins = (): Plugin[] => [
  keepsSlots,
  history(),
  keymap({
    'Mod-b': toggleMark(marks['strong']!),
    'Mod-i': toggleMark(marks['em']!),
    'Mod-z': undo,
    'Mod-y': redo,
    'Mod-Shift-z': redo,
    'Shift-Enter': lineBreak,
    Enter: splitListItem(nodes['list_item']!),
    'Mod-[': liftListItem(nodes['list_item']!),
    'Mod-]': sinkListItem(nodes['list_item']!),
  }),
  keymap(baseKeymap),
];

export const stateOf = (doc: Node): EditorState => EditorState.create({ doc, plugins: plugins() });

/** Another text, with the cursor as far into it as it was. */
export function stateAt(doc: Node, head: number): EditorState {
  const state = stateOf(doc);
  const place = doc.resolve(Math.min(head, doc.content.size));
  return state.apply(state.tr.setSelection(Selection.near(place, -1)));
}

/** Puts a formula where the cursor is. @param markup MathML */
export const putFormula =
  (markup: string): Command =>
  (state, dispatch) => {
    dispatch?.(state.tr.replaceSelectionWith(nodes['math']!.create({ markup })).scrollIntoView());
    return true;
  };

export const putPicture =
  (src: string, alt: string): Command =>
  (state, dispatch) => {
    dispatch?.(
      state.tr.replaceSelectionWith(nodes['image']!.create({ attrs: { src, alt } })).scrollIntoView(),
    );
    return true;
  };
