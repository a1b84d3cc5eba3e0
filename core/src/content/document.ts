import type { ContentNode } from '../model/content.ts';
import type { XmlElement } from '../xml/tree.ts';
import { htmlContent } from './html.ts';
import { tidy } from './tidy.ts';
import { withBreaks } from '../xml/write.ts';
import { writeHtml } from './writeHtml.ts';

/**
 * Content as people edit it: HTML of the allow-list, in which everything that is no text (an interaction, a gap,
 * a variable …) is a slot, `<span data-slot="2">`, that can be moved and not looked into.
 */
export interface ContentDocument {
  readonly html: string;
  /** What stands in the slots, by their number. */
  readonly slots: readonly ContentNode[];
}

const SLOT = 'data-slot';

/** Content as a document. */
export function toDocument(nodes: readonly ContentNode[]): ContentDocument {
  const slots: ContentNode[] = [];
  const html = writeHtml(
    nodes,
    (path) => path,
    (node) => {
      slots.push(node);
      return `<span ${SLOT}="${slots.length - 1}"></span>`;
    },
  );
  return { html: withBreaks(html), slots };
}

/** A document read back: what the allow-list lets through, what it took out, and slots that came out otherwise. */
export interface FromDocument {
  readonly nodes: readonly ContentNode[];
  /** What is not allowed and is gone, in words. */
  readonly removed: readonly string[];
  /** Numbers of slots that are gone, or stand there more than once. */
  readonly lost: readonly number[];
}

/**
 * Content of a document, whoever wrote it: markup of word processors and scripts are taken out, slots get back what
 * stood in them.
 */
export function fromDocument(html: string, slots: readonly ContentNode[]): FromDocument {
  const seen = slots.map(() => 0);
  const removed = new Set<string>();
  const special = (element: XmlElement): readonly ContentNode[] | null => {
    const written = element.attrs[SLOT];
    if (element.name !== 'span' || written === undefined) return null;
    const at = /^\d+$/u.test(written) ? Number(written) : -1;
    const slot = slots[at];
    if (!slot) return [];
    seen[at]! += 1;
    return seen[at] === 1 ? [slot] : [];
  };
  const nodes = htmlContent(html, {
    resolve: (address) => address,
    note: (code, _severity, ...[params]) => {
      const what = params && 'what' in params ? String(params.what) : '';
      if ((code === 'active-content-removed' || code === 'opaque-content') && what !== '') removed.add(what);
    },
    special,
  });
  return {
    nodes: tidy(nodes),
    removed: [...removed],
    lost: seen.flatMap((times, at) => (times === 1 ? [] : [at])),
  };
}
