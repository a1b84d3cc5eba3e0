import type { ContentNode, Picture } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { mapLists, walk } from '../../model/visit.ts';
import type { Editing } from '../editing.ts';
import { refused, type Refused } from '../refusal.ts';
import type { ItemOperation, WholeOperation } from './operation.ts';

type Element = Extract<ContentNode, { kind: 'element' }>;

/** Attributes by which an element shows or leads to a file. */
const ADDRESSES = ['src', 'href', 'poster', 'longdesc'] as const;

/** All content of an item, changed in the same way: body, shared passages, feedback. */
export function mapContent(item: Item, map: (nodes: readonly ContentNode[]) => readonly ContentNode[]): Item {
  return {
    ...item,
    body: map(item.body),
    stimuli: item.stimuli.map((s) => ({ ...s, content: map(s.content) })),
    feedback: item.feedback.map((f) => ({ ...f, content: map(f.content) })),
  };
}

const allContent = (item: Item): readonly ContentNode[] => [
  ...item.stimuli.flatMap((s) => s.content),
  ...item.body,
  ...item.feedback.flatMap((f) => f.content),
];

/** The pictures a node stands on, changed. */
function mapPictures(node: ContentNode, map: (p: Picture) => Picture): ContentNode {
  if (node.kind === 'positionObject') return { ...node, picture: map(node.picture), stage: map(node.stage) };
  return 'picture' in node ? { ...node, picture: map(node.picture) } : node;
}

function everyNode(
  nodes: readonly ContentNode[],
  map: (node: ContentNode) => readonly ContentNode[],
): ContentNode[] {
  return nodes.flatMap((n) => map(mapLists(n, (list) => everyNode(list, map))));
}

const known = (item: Item): string => item.files.map((f) => f.path).join(', ') || 'none';

export const ALT: ItemOperation<'alt'> = {
  on: 'item',
  now: (item, { path }) => {
    let found: string | null | undefined;
    walk(allContent(item), (node) => {
      if (node.kind === 'element' && node.name === 'img' && node.attrs['src'] === path)
        found ??= node.attrs['alt'] ?? null;
      if (node.kind === 'positionObject') {
        for (const p of [node.picture, node.stage]) if (p.src === path) found ??= p.alt;
      } else if ('picture' in node && node.picture.src === path) found ??= node.picture.alt;
    });
    return found === undefined ? refused('file-unknown', { path, known: known(item) }) : found;
  },
  wanted: (edit) => edit.to.trim(),
  apply: (item, { path, to }) =>
    mapContent(item, (nodes) =>
      everyNode(nodes, (node) => {
        if (node.kind === 'element' && node.name === 'img' && node.attrs['src'] === path)
          return [{ ...node, attrs: { ...node.attrs, alt: to.trim() } }];
        return [mapPictures(node, (p) => (p.src === path ? { ...p, alt: to.trim() } : p))];
      }),
    ),
};

const leadsTo = (node: Element, path: string): boolean => ADDRESSES.some((a) => node.attrs[a] === path);

/** What shows a file goes; words that lead to it stay, and lead nowhere. */
export const FILE_DROP: ItemOperation<'file-drop'> = {
  on: 'item',
  now: (item, { path, was }) => {
    if (item.files.some((f) => f.path === path)) return true;
    let shown = false;
    walk(allContent(item), (n) => void (shown ||= n.kind === 'element' && leadsTo(n, path)));
    if (shown) return true;
    return was === true ? false : refused('file-unknown', { path, known: known(item) });
  },
  wanted: () => false,
  apply: (item, { path }) => {
    const next = mapContent(item, (nodes) =>
      everyNode(nodes, (node) => {
        if (node.kind !== 'element' || !leadsTo(node, path)) return [node];
        return node.name === 'a' ? node.children : emptied(node);
      }),
    );
    return { ...next, files: item.files.filter((f) => f.path !== path || standsOn(next, path)) };
  },
};

/** What is said within a film or a sound for those who cannot see it stays. */
const emptied = (node: Element): readonly ContentNode[] =>
  node.name === 'video' || node.name === 'audio'
    ? node.children.filter((c) => c.kind !== 'element' || (c.name !== 'source' && c.name !== 'track'))
    : [];

/** A picture that an interaction stands on cannot go without it. */
function standsOn(item: Item, path: string): boolean {
  let found = false;
  walk(item.body, (node) => {
    if (node.kind === 'positionObject') found ||= node.picture.src === path || node.stage.src === path;
    else if ('picture' in node) found ||= node.picture.src === path;
  });
  return found;
}

/** Marks a file as there, or under another name, in every item that refers to it. */
function inItems(editing: Editing, path: string, change: (item: Item) => Item): void {
  for (const [id, item] of editing.items)
    if (item.files.some((f) => f.path === path)) editing.items.set(id, change(item));
}

const refersTo = (editing: Editing, path: string): boolean => {
  for (const item of editing.items.values()) if (item.files.some((f) => f.path === path)) return true;
  return false;
};

/** A file in the place of one that is missing, or of another; or a new one, for an item that is going to show it. */
export const FILE_PUT: WholeOperation<'file-put'> = {
  on: 'whole',
  now: (editing, { path, node }) => {
    const there = editing.files.get(path);
    if (there) return there.sha256;
    return node !== undefined || refersTo(editing, path)
      ? null
      : refused('file-unknown', { path, known: 'none' });
  },
  wanted: (edit) => edit.to.sha256,
  apply: (editing, { path, to }) => {
    editing.files.set(path, { path, bytes: to.bytes, sha256: to.sha256, embedded: to.base64 });
    inItems(editing, path, (item) => ({
      ...item,
      files: item.files.map((f) => (f.path === path ? { ...f, present: true } : f)),
    }));
    return undefined;
  },
};

/** A file under another name, wherever it is shown. The bytes are still read where they stand in the source. */
export const FILE_NAME: WholeOperation<'file-name'> = {
  on: 'whole',
  now: (editing, { path }) =>
    editing.files.has(path) ? path : refused('file-unknown', { path, known: 'none' }),
  wanted: (edit) => edit.to,
  apply: (editing, { path, to }): Refused | undefined => {
    const file = editing.files.get(path)!;
    if (editing.files.has(to)) return refused('file-taken', { path: to });
    const files = [...editing.files.values()];
    editing.files.clear();
    for (const f of files) {
      if (f.path !== path) editing.files.set(f.path, f);
      else editing.files.set(to, { ...file, path: to, from: file.from ?? path });
    }
    const renamed = (address: string | undefined): string | undefined => (address === path ? to : address);
    inItems(editing, path, (item) => ({
      ...mapContent(item, (nodes) =>
        everyNode(nodes, (node) => {
          if (node.kind === 'element' && leadsTo(node, path))
            return [
              {
                ...node,
                attrs: Object.fromEntries(
                  Object.entries(node.attrs).map(([k, v]) => [
                    k,
                    (ADDRESSES as readonly string[]).includes(k) ? renamed(v)! : v,
                  ]),
                ),
              },
            ];
          return [mapPictures(node, (p) => ({ ...p, src: renamed(p.src)! }))];
        }),
      ),
      files: item.files.map((f) => (f.path === path ? { ...f, path: to } : f)),
    }));
    return undefined;
  },
};
