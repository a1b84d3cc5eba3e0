import type { Editing } from '../editing.ts';
import { refused, type Refused } from '../refusal.ts';
import type { WholeOperation } from './operation.ts';

/**
 * How a document is to be read: reading it went by that already (`saidBy`), so that there is nothing left to do
 * here but to see that there is such a document.
 */
function document(editing: Editing, path: string | undefined): number | Refused {
  const documents = editing.source.documents ?? [];
  const found = path === undefined ? documents[0] : documents.find((d) => d.path === path);
  if (found) return found.blocks;
  return refused('document-unknown', {
    path: path ?? '',
    known: documents.map((d) => d.path).join(', ') || 'none',
  });
}

export const READ_AS: WholeOperation<'read-as'> = {
  on: 'whole',
  now: (editing, { path, to }) => {
    const blocks = document(editing, path);
    return typeof blocks === 'number' ? to : blocks;
  },
  wanted: ({ to }) => to,
  apply: () => undefined,
};

export const BLOCK: WholeOperation<'block'> = {
  on: 'whole',
  now: (editing, { path, block, to }) => {
    const blocks = document(editing, path);
    if (typeof blocks !== 'number') return blocks;
    return block <= blocks ? to : refused('block-unknown', { block, blocks });
  },
  wanted: ({ to }) => to,
  apply: () => undefined,
};
