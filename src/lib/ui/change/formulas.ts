import { NodeSelection, type EditorState } from 'prosemirror-state';

/** A formula as it was typed. */
export interface Typed {
  readonly tex: string;
  readonly display: boolean;
}

/** The formula that is selected, as it was typed; null where none is, or where it does not say so. */
export function typedFormula({ selection }: EditorState): Typed | null {
  if (!(selection instanceof NodeSelection) || selection.node.type.name !== 'math') return null;
  const markup = String(selection.node.attrs['markup']);
  const math = new DOMParser().parseFromString(markup, 'text/html').querySelector('math');
  const tex = math?.querySelector('annotation')?.textContent.trim() ?? '';
  return tex === '' ? null : { tex, display: math?.getAttribute('display') === 'block' };
}
