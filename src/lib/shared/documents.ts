import type { BlockSeen, HandRole, Item, Layout, LayoutChoices } from '@alforja/core';
import type { ItemView } from './types.ts';

/** Documents of questions beside what was read from them, as values that cross to the screens. */

/** One document of a source in a list of them. */
export interface DocumentLine {
  readonly path: string;
  /** Names of the banks it became. */
  readonly banks: readonly string[];
  readonly items: number;
  readonly points: number;
  /** Items that have a key. */
  readonly keyed: number;
  /** Items whose key is not sure. */
  readonly unsure: number;
  /** Blocks that nobody understood. */
  readonly unread: number;
  readonly by: 'found' | 'said' | 'known';
  /** A confirmed layout was meant for it, and does not fit. */
  readonly misfit: boolean;
  /** 0 to 1. */
  readonly sure: number;
}

/** An item as it was read from its document, before anything was changed in it. */
export interface ReadItem extends Pick<ItemView, 'keyed' | 'key' | 'keyText'> {
  readonly id: string;
  readonly kind: string;
  readonly points: number;
  readonly category: string | null;
  readonly body: Item['body'];
  readonly responses: Item['responses'];
  /** Why its key, or its points, may be doubted. */
  readonly doubts: readonly string[];
}

/** A block, and what somebody has said that it is. */
export type BlockView = BlockSeen & { readonly said: HandRole | null };

export interface DocumentShown {
  readonly path: string;
  readonly layout: Layout;
  readonly by: DocumentLine['by'];
  /** The next best way to read it, in words; null where there is none. */
  readonly runnerUp: string | null;
  readonly choices: LayoutChoices;
  /** What it looks like when nothing is known of it. */
  readonly looks: readonly string[];
  readonly blocks: readonly BlockView[];
  /** Blocks that are read as well, and too many to show. */
  readonly more: number;
  readonly items: readonly ReadItem[];
}

export interface DocumentsView {
  readonly documents: readonly DocumentLine[];
  readonly shown: DocumentShown;
}
