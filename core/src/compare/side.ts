import { canonicalMath, canonicalText } from '../match/canonical.ts';
import type { ContentNode } from '../model/content.ts';
import type { Holding, Item } from '../model/holding.ts';
import { composed } from '../model/composed.ts';
import type { Option } from '../model/options.ts';
import { walk } from '../model/visit.ts';

/** Content of a file by its package path: its sha256, or null when it is not there. */
export type FileContent = (path: string) => string | null;

/** Contents of the files of a holding. */
export function fileContents(holding: Pick<Holding, 'files'>): FileContent {
  const hashes = new Map(holding.files.map((f) => [f.path, f.sha256]));
  return (path) => hashes.get(path) ?? null;
}

/** What a file is called, wherever it lies. */
export const nameIn = (path: string): string => composed(path.slice(path.lastIndexOf('/') + 1));

/** One item of a comparison, with what its files hold. */
export interface Side {
  readonly item: Item;
  readonly files: FileContent;
}

type Media = Extract<ContentNode, { kind: 'element' }>;
const MEDIA: ReadonlySet<string> = new Set(['img', 'audio', 'video', 'source']);

/** Pictures, sounds and films among content, in order. */
export function mediaIn(nodes: readonly ContentNode[]): Media[] {
  const found: Media[] = [];
  walk(nodes, (node) => {
    if (node.kind === 'element' && MEDIA.has(node.name) && node.attrs['src']) found.push(node);
  });
  return found;
}

const REMOTE = /^(?:[a-z][a-z0-9+.-]*:|\/\/)/iu;

/** What tells the content of an address from others: of a file its bytes, of what is elsewhere its address. */
export const contentAt = (src: string, files: FileContent): string =>
  files(src) ?? (REMOTE.test(src) ? composed(src) : 'missing');

/** What an option says: its words, formulas, and the words that stand for its pictures; else its label. */
export function optionShown(option: Option): string {
  const media = mediaIn(option.content);
  if (media.length === 0 && option.content.length === 0) return composed(option.label);
  const pictures = media.map((m) => `[${composed(m.attrs['alt'] ?? '') || 'picture'}]`);
  return [canonicalText(option.content), ...canonicalMath(option.content), ...pictures].join(' ').trim();
}

/** What an option says, shows and stands for: two that are the same are one, whatever they are called. */
export function optionKey(option: Option, files: FileContent): string {
  const media = mediaIn(option.content).map((m) => contentAt(m.attrs['src']!, files));
  return [optionShown(option), ...media, option.place ?? ''].join('\u0001');
}
