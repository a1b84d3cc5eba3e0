import type { ScoringShape } from '../scoring/shapes.ts';

/** What one side of a comparison says of a facet, as data. Words for it are found in `report/differences.ts`. */

/** The kind of one interaction; whether one answer is taken or several, where that makes two kinds of it. */
export interface KindSaid {
  readonly kind: string;
  readonly single: boolean | null;
}

/** What is offered in one interaction: texts in their order, areas of a picture, or a slider's ends. */
export type ChoicesSaid =
  | { readonly texts: readonly string[] }
  | { readonly areas: readonly string[] }
  | { readonly low: number; readonly high: number; readonly step: number };

/** Whether choices or the items of a section are shuffled. */
export type ShuffleSaid =
  | {
      readonly of: 'choices';
      readonly shuffled: boolean;
      /** What the choices say that keep their places. */
      readonly pinned: readonly string[];
    }
  | { readonly of: 'section'; readonly shuffled: boolean };

/** A scoring rule in its human shape, with what is needed to speak of it: points, and texts of its choices. */
export interface ScoringSaid {
  readonly shape: ScoringShape;
  readonly points: number;
  readonly names: Readonly<Record<string, string>>;
}

/** Points of an item, a quiz or a rubric; null where it is not scored. */
export interface PointsSaid {
  readonly points: number | null;
  readonly percentage: boolean;
}

export type FilesSaid =
  | {
      readonly files: readonly {
        readonly path: string;
        readonly present: boolean;
        /** Called as on the other side, and holding something else. */
        readonly changed?: boolean;
      }[];
    }
  | { readonly alternatives: readonly string[] }
  /** What an item gives candidates to work with: rulers, calculators, papers (QTI 3 companion materials). */
  | { readonly companions: readonly string[] };

export interface DrawSaid {
  readonly pick: number;
  readonly of: number;
  /** Null where nobody can say. */
  readonly pointsEach: number | null;
  readonly withReplacement: boolean;
}

/**
 * How many items, and the first of those that stand on this side alone; or, of the same items, the sections of
 * those that moved, their order, or what those are worth here whose weight is another.
 */
export type MembershipSaid =
  | { readonly items: number; readonly only: readonly string[] }
  | { readonly placed: readonly { readonly item: string; readonly section: string }[] }
  | { readonly order: readonly string[] }
  | { readonly worth: readonly { readonly item: string; readonly points: number }[] };

export type CriteriaSaid =
  | {
      readonly criteria: readonly {
        readonly title: string;
        readonly description: string;
        readonly weight: number | null;
      }[];
    }
  | { readonly freeComments: boolean };

export interface LevelSaid {
  readonly title: string;
  readonly points: { readonly low: number; readonly high: number } | null;
  readonly description: string;
  readonly feedback: string;
}
export interface LevelsSaid {
  readonly criterion: string;
  readonly levels: readonly LevelSaid[];
}

/** By facet. An empty text or list is nothing; null is a setting that is not set. */
export interface SaidOf {
  readonly title: string;
  readonly category: string;
  readonly wording: string;
  readonly instructions: string;
  readonly mathematics: readonly string[];
  readonly kind: readonly KindSaid[];
  readonly choices: readonly ChoicesSaid[];
  readonly 'choice-order': readonly (readonly string[])[];
  readonly shuffle: readonly ShuffleSaid[];
  readonly key: readonly string[];
  readonly points: PointsSaid;
  readonly scoring: ScoringSaid;
  readonly tolerance: ScoringSaid;
  readonly 'case-sensitivity': ScoringSaid;
  readonly feedback: readonly string[];
  readonly files: FilesSaid;
  readonly attempts: number | 'unlimited' | null;
  /** Minutes. */
  readonly 'time-limit': number | null;
  readonly 'pass-mark': number | null;
  /** ISO 8601. */
  readonly dates: { readonly opens: string | null; readonly closes: string | null };
  readonly sections: readonly string[];
  readonly draw: readonly DrawSaid[];
  readonly membership: MembershipSaid;
  readonly criteria: CriteriaSaid;
  readonly levels: readonly LevelsSaid[];
}

/** What can differ of an item, a quiz, a bank or a rubric. */
export type Facet = keyof SaidOf;

/** What an older record says in words alone. */
export interface Quoted {
  readonly words: string;
}
