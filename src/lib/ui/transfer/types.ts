import type { Dependency } from '@alforja/core';
import type { NodeKind } from '$lib/shared/types';

/** What the ticks bring along and leave behind, as the server answers. */
export interface ContentsView {
  readonly items: number;
  readonly points: number;
  readonly total: number;
  readonly dependencies: readonly Dependency[];
  readonly behind: readonly { readonly kind: NodeKind; readonly title: string; readonly id: string }[];
}
