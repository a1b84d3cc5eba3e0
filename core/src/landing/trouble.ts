import type { Quoted } from '../compare/said.ts';
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

/** What one side says of a trouble, as data. Words for it are found in `report/troubles.ts`. */
export interface TroubleSaidOf {
  /** The name of a section; null where it stands in none. */
  readonly section: { readonly section: string | null };
  readonly name: { readonly title: string };
  readonly visibility: { readonly hidden: boolean };
  /** In the system's own words; null where it is not set. */
  readonly review: { readonly review: string | null };
  /** How many there are, and where the last of them stands. */
  readonly copy: { readonly copies: number; readonly section: string | null };
  readonly extra: { readonly there: boolean; readonly section: string | null };
  readonly 'not-there': { readonly there: boolean; readonly title: string };
  /** Names of what a rubric is attached to. */
  readonly attachment: { readonly to: readonly string[] };
  readonly locked: { readonly locked: boolean };
}

/** What a trouble is about: a thing as planned, as found, or both. */
interface About {
  readonly kind: ThingKind;
  /** The id in the source; null for what was not planned. */
  readonly node: string | null;
  /** The id in the destination. */
  readonly thing: string | null;
  readonly name: string;
}

export type Trouble = About &
  {
    readonly [K in TroubleKind]: {
      readonly trouble: K;
      readonly planned: TroubleSaidOf[K] | Quoted;
      readonly found: TroubleSaidOf[K] | Quoted;
    };
  }[TroubleKind];

/** One trouble, whatever its kind. */
export function troubleWith<K extends TroubleKind>(
  about: About,
  trouble: K,
  planned: TroubleSaidOf[K],
  found: TroubleSaidOf[K],
): Trouble {
  // A mapped type over all kinds: that they belong together is what the parameters say.
  return { ...about, trouble, planned, found } as unknown as Trouble;
}

export interface Landed {
  readonly landing: Landing;
  readonly thing: CourseThing | null;
}
