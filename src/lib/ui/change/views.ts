import type { Node } from 'prosemirror-model';
import { NodeSelection } from 'prosemirror-state';
import type { NodeView, NodeViewConstructor } from 'prosemirror-view';
import { fileAddress } from '../content/answers.svelte';

/** How atoms of a text look while it is changed. */

export interface Around {
  /** Where files of the package are fetched. */
  readonly files: string;
  /** Pictures that were put in and are not in the package yet, by path. */
  readonly fresh: ReadonlyMap<string, string>;
  /** What each slot is called. */
  readonly slots: readonly string[];
}

class Still implements NodeView {
  readonly dom: HTMLElement;
  constructor(dom: HTMLElement) {
    this.dom = dom;
    dom.contentEditable = 'false';
  }
  ignoreMutation(): boolean {
    return true;
  }
}

function element(tag: string, className: string): HTMLElement {
  const made = document.createElement(tag);
  made.className = className;
  return made;
}

/** Markup that core let through its allow-list, or wrote itself; scripts and events are not in it. */
function markup(tag: string, className: string, html: string): NodeView {
  const made = element(tag, className);
  made.append(...new DOMParser().parseFromString(html, 'text/html').body.childNodes);
  return new Still(made);
}

/** @param openFormula opens the formula that is selected */
export function nodeViews(around: Around, openFormula: () => void): Record<string, NodeViewConstructor> {
  const slot =
    (tag: string) =>
    (node: Node): NodeView => {
      const made = element(tag, 'slot');
      made.textContent = around.slots[Number(node.attrs['at'])] ?? '…';
      return new Still(made);
    };
  return {
    slot: slot('span'),
    slot_block: slot('div'),
    math: (node, view, at) => {
      const made = markup('span', 'formula', String(node.attrs['markup']));
      (made.dom as HTMLElement).addEventListener('dblclick', () => {
        const place = at();
        if (place === undefined) return;
        view.dispatch(view.state.tr.setSelection(NodeSelection.create(view.state.doc, place)));
        openFormula();
      });
      return made;
    },
    kept: (node) => markup('div', 'kept', String(node.attrs['html'])),
    image: (node) => {
      const made = document.createElement('img');
      const { src = '', alt = '', width, height } = node.attrs['attrs'] as Record<string, string>;
      made.src = around.fresh.get(src) ?? fileAddress(around.files, src);
      made.alt = alt;
      if (width) made.setAttribute('width', width);
      if (height) made.setAttribute('height', height);
      return new Still(made);
    },
  };
}
