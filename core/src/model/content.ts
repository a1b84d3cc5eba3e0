/** What students read: an allow-listed XHTML tree with interactions in their places. */

export type Standard = 'qti1.2' | 'qti2';

export interface TextNode {
  readonly kind: 'text';
  readonly text: string;
}

/** An element of the allow-list (see content/allow.ts); attributes are already checked. */
export interface ElementNode {
  readonly kind: 'element';
  readonly name: string;
  readonly attrs: Readonly<Record<string, string>>;
  readonly children: readonly ContentNode[];
}

/** Presentation MathML, kept as an allow-listed tree. */
export interface MathNode {
  readonly kind: 'math';
  readonly attrs: Readonly<Record<string, string>>;
  readonly children: readonly ContentNode[];
}

/** Content that appears only while an outcome has (or has not) a value: QTI feedbackInline and feedbackBlock. */
export interface FeedbackNode {
  readonly kind: 'feedback';
  readonly block: boolean;
  readonly outcome: string;
  readonly identifier: string;
  readonly show: boolean;
  readonly children: readonly ContentNode[];
}

/** Text for somebody (candidate, scorer …) about the item: QTI rubricBlock. */
export interface RubricNode {
  readonly kind: 'rubricBlock';
  readonly view: string;
  readonly children: readonly ContentNode[];
}

/** Something of a standard that has no node of its own yet: kept whole, shown as its source. */
export interface OpaqueNode {
  readonly kind: 'opaque';
  readonly standard: Standard;
  readonly name: string;
  readonly xml: string;
}

export interface Choice {
  readonly id: string;
  readonly content: readonly ContentNode[];
  /** Pinned: keeps its place while the others shuffle. */
  readonly fixed: boolean;
}

export interface ChoiceInteraction {
  readonly kind: 'choice';
  readonly responseId: string;
  readonly shuffle: boolean;
  /** 0 means any number. */
  readonly maxChoices: number;
  readonly minChoices: number;
  readonly prompt: readonly ContentNode[];
  readonly choices: readonly Choice[];
}

export interface TextEntryInteraction {
  readonly kind: 'textEntry';
  readonly responseId: string;
  readonly expectedLength: number | null;
  readonly placeholder: string | null;
}

export interface ExtendedTextInteraction {
  readonly kind: 'extendedText';
  readonly responseId: string;
  readonly prompt: readonly ContentNode[];
  readonly expectedLines: number | null;
  readonly expectedLength: number | null;
}

/** An interaction not read into its own kind: `name` is the element's name in its standard, the XML is kept. */
export interface CustomInteraction {
  readonly kind: 'custom';
  readonly responseId: string | null;
  readonly standard: Standard;
  readonly name: string;
  readonly xml: string;
  /** What a reader without this kind can still show. */
  readonly fallback: readonly ContentNode[];
}

export type Interaction =
  ChoiceInteraction | TextEntryInteraction | ExtendedTextInteraction | CustomInteraction;
export type InteractionKind = Interaction['kind'];
export const INTERACTION_KINDS = [
  'choice',
  'textEntry',
  'extendedText',
  'custom',
] as const satisfies readonly InteractionKind[];

export type ContentNode =
  TextNode | ElementNode | MathNode | FeedbackNode | RubricNode | OpaqueNode | Interaction;

/** Feedback outside the body: QTI 1.2 itemfeedback, QTI 2 modalFeedback. */
export interface Feedback {
  readonly id: string;
  readonly kind: 'general' | 'hint' | 'solution';
  readonly title: string;
  /** Shown while this outcome holds `id` (or, with show=false, while it does not). */
  readonly outcome: string;
  readonly show: boolean;
  readonly content: readonly ContentNode[];
}
