import type { CourseThing, Landing, ThingKind } from './types.ts';

/** What went otherwise at the landing itself, apart from what differs inside the things. */
export const TROUBLES = [
  'section',
  'name',
  'visibility',
  'copy',
  'extra',
  'review',
  'not-there',
  'attachment',
  'locked',
] as const;
export type TroubleKind = (typeof TROUBLES)[number];

export interface Trouble {
  readonly trouble: TroubleKind;
  readonly kind: ThingKind;
  /** The id in the source; null for what was not planned. */
  readonly node: string | null;
  /** The id in the destination. */
  readonly thing: string | null;
  readonly name: string;
  readonly planned: string;
  readonly found: string;
}

export interface Landed {
  readonly landing: Landing;
  readonly thing: CourseThing | null;
}
