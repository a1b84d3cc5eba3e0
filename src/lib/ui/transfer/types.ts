import type { Dependency } from '@alforja/core';
import type { NodeKind } from '$lib/shared/types';

/** What the ticks bring along and leave behind, as the server answers. */
export interface ContentsView {
  readonly items: number;
  readonly points: number;
  readonly total: number;
  readonly rubrics: number;
  readonly rubricsTotal: number;
  readonly dependencies: readonly Dependency[];
  readonly broken: readonly { readonly bank: string; readonly quiz: string; readonly pick: number }[];
  readonly ungraded: readonly { readonly rubric: string; readonly item: string }[];
  readonly behind: readonly { readonly kind: NodeKind; readonly title: string; readonly id: string }[];
}

/** Things that stand together in the source: its sections, or the folders of a package. */
export interface ThingGroup {
  readonly id: string;
  readonly name: string;
  readonly nodes: readonly { readonly kind: NodeKind; readonly nodeId: string }[];
}

/** A difference, what can be done about it, and what somebody decided. */
export interface Judged {
  readonly key: string;
  readonly what: string;
  readonly planned: string;
  readonly found: string;
  readonly mend: 'set' | 'remove' | 'resend' | 'renew' | null;
  readonly decision: { readonly reason: string; readonly by: string; readonly at: number } | null;
}
