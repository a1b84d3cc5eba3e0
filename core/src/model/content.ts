import type { Shape } from './scoring.ts';

/** What students read: an allow-listed XHTML tree with interactions in their places. */

/** Whose XML a kept piece is: it can go back only there. */
export type Standard = 'qti1.2' | 'qti2' | 'qti3';

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
interface MathNode {
  readonly kind: 'math';
  readonly attrs: Readonly<Record<string, string>>;
  readonly children: readonly ContentNode[];
}

/**
 * Content that appears only while an outcome has (or has not) a value: QTI feedbackInline and feedbackBlock.
 */
interface FeedbackNode {
  readonly kind: 'feedback';
  readonly block: boolean;
  readonly outcome: string;
  readonly identifier: string;
  readonly show: boolean;
  readonly children: readonly ContentNode[];
}

/** Text for somebody (candidate, scorer …) about the item: QTI rubricBlock. */
interface RubricNode {
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
  /** How often it may (0: any number) and must be used in pairs. */
  readonly matchMax?: number;
  readonly matchMin?: number;
  /** Group names; it can be paired only within one (QTI matchGroup). */
  readonly groups?: readonly string[];
  /** Shown only while a template variable has (or has not) this value. */
  readonly template?: { readonly id: string; readonly identifier: string; readonly show: boolean };
}

/** An area of a picture that can be picked. */
export interface Hotspot {
  readonly id: string;
  readonly shape: Shape;
  readonly coords: string;
  readonly label: string;
  readonly fixed?: boolean;
  readonly matchMax?: number;
  readonly matchMin?: number;
  readonly groups?: readonly string[];
}

/** A picture by its package path, as interactions on pictures need it. */
export interface Picture {
  readonly src: string;
  readonly type: string;
  readonly width: number | null;
  readonly height: number | null;
  readonly alt: string;
}

/** Attributes without meaning to scoring, kept and carried: class with shared vocabulary, data-*, label … */
export type KeptAttributes = Readonly<Record<string, string>>;

interface Asked {
  readonly responseId: string;
  readonly prompt: readonly ContentNode[];
  readonly attrs?: KeptAttributes;
}
interface Limits {
  /** 0 means any number. */
  readonly maxChoices: number;
  readonly minChoices: number;
}
interface Associations {
  /** 0 means any number. */
  readonly maxAssociations: number;
  readonly minAssociations: number;
}

export interface ChoiceInteraction extends Asked, Limits {
  readonly kind: 'choice';
  readonly shuffle: boolean;
  readonly choices: readonly Choice[];
}
export interface OrderInteraction extends Asked, Limits {
  readonly kind: 'order';
  readonly shuffle: boolean;
  readonly choices: readonly Choice[];
}
export interface AssociateInteraction extends Asked, Associations {
  readonly kind: 'associate';
  readonly shuffle: boolean;
  readonly choices: readonly Choice[];
}
export interface MatchInteraction extends Asked, Associations {
  readonly kind: 'match';
  readonly shuffle: boolean;
  readonly left: readonly Choice[];
  readonly right: readonly Choice[];
  /** QTI 1.2 asks each row by a response of its own: left id to response id. Null: one response of pairs. */
  readonly rows: Readonly<Record<string, string>> | null;
}
export interface GapMatchInteraction extends Asked {
  readonly kind: 'gapMatch';
  readonly shuffle: boolean;
  readonly choices: readonly Choice[];
  /** The text with its gaps. */
  readonly content: readonly ContentNode[];
}
interface InlineChoiceInteraction extends Asked {
  readonly kind: 'inlineChoice';
  readonly shuffle: boolean;
  readonly choices: readonly Choice[];
}
interface TextEntryInteraction {
  readonly kind: 'textEntry';
  readonly responseId: string;
  readonly expectedLength: number | null;
  readonly placeholder: string | null;
  readonly patternMask?: string;
  readonly attrs?: KeptAttributes;
}
interface ExtendedTextInteraction extends Asked {
  readonly kind: 'extendedText';
  readonly expectedLines: number | null;
  readonly expectedLength: number | null;
  readonly maxStrings?: number;
  readonly format?: string;
}
export interface HottextInteraction extends Asked, Limits {
  readonly kind: 'hottext';
  readonly content: readonly ContentNode[];
}
export interface HotspotInteraction extends Asked, Limits {
  readonly kind: 'hotspot' | 'graphicOrder';
  readonly picture: Picture;
  readonly hotspots: readonly Hotspot[];
}
export interface GraphicAssociateInteraction extends Asked, Associations {
  readonly kind: 'graphicAssociate';
  readonly picture: Picture;
  readonly hotspots: readonly Hotspot[];
}
export interface GraphicGapMatchInteraction extends Asked {
  readonly kind: 'graphicGapMatch';
  readonly picture: Picture;
  readonly choices: readonly Choice[];
  readonly hotspots: readonly Hotspot[];
}
export interface SelectPointInteraction extends Asked, Limits {
  readonly kind: 'selectPoint';
  readonly picture: Picture;
}
export interface PositionObjectInteraction extends Asked, Limits {
  readonly kind: 'positionObject';
  /** What is placed, and what it is placed on. */
  readonly picture: Picture;
  readonly stage: Picture;
}
interface SliderInteraction extends Asked {
  readonly kind: 'slider';
  readonly lowerBound: number;
  readonly upperBound: number;
  readonly step: number | null;
  readonly reverse: boolean;
  readonly vertical: boolean;
}
interface UploadInteraction extends Asked {
  readonly kind: 'upload';
  readonly type: string;
}
export interface DrawingInteraction extends Asked {
  readonly kind: 'drawing';
  readonly picture: Picture;
}
interface MediaInteraction extends Asked {
  readonly kind: 'media';
  readonly autostart: boolean;
  readonly minPlays: number;
  readonly maxPlays: number;
  readonly loop: boolean;
  readonly media: readonly ContentNode[];
}
interface EndAttemptInteraction {
  readonly kind: 'endAttempt';
  readonly responseId: string;
  readonly title: string;
  readonly attrs?: KeptAttributes;
}

/**
 * An interaction not read into its own kind: `name` is the element's name in its standard, the XML is kept.
 */
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
  | ChoiceInteraction
  | OrderInteraction
  | AssociateInteraction
  | MatchInteraction
  | GapMatchInteraction
  | InlineChoiceInteraction
  | TextEntryInteraction
  | ExtendedTextInteraction
  | HottextInteraction
  | HotspotInteraction
  | GraphicAssociateInteraction
  | GraphicGapMatchInteraction
  | SelectPointInteraction
  | PositionObjectInteraction
  | SliderInteraction
  | UploadInteraction
  | DrawingInteraction
  | MediaInteraction
  | EndAttemptInteraction
  | CustomInteraction;
export type InteractionKind = Interaction['kind'];
export const INTERACTION_KINDS = [
  'choice',
  'order',
  'associate',
  'match',
  'gapMatch',
  'inlineChoice',
  'textEntry',
  'extendedText',
  'hottext',
  'hotspot',
  'selectPoint',
  'graphicOrder',
  'graphicAssociate',
  'graphicGapMatch',
  'positionObject',
  'slider',
  'upload',
  'drawing',
  'media',
  'endAttempt',
  'custom',
] as const satisfies readonly InteractionKind[];

/** Where a choice goes in the text of a gap match. */
interface GapNode {
  readonly kind: 'gap';
  readonly id: string;
  readonly groups: readonly string[];
}

/** A run of text that can be picked in a hottext interaction. */
interface HottextNode {
  readonly kind: 'hottextChoice';
  readonly id: string;
  readonly content: readonly ContentNode[];
}

/** The value of a template or outcome variable in its place. */
interface PrintedVariableNode {
  readonly kind: 'printedVariable';
  readonly id: string;
  readonly attrs: KeptAttributes;
}

/**
 * Content that appears only while a template variable has (or has not) a value: QTI templateInline,
 * templateBlock.
 */
interface TemplateNode {
  readonly kind: 'template';
  readonly block: boolean;
  readonly template: string;
  readonly identifier: string;
  readonly show: boolean;
  readonly children: readonly ContentNode[];
}

/** Content that a candidate opens on request: QTI infoControl. */
interface InfoControlNode {
  readonly kind: 'infoControl';
  readonly title: string;
  readonly children: readonly ContentNode[];
}

export type ContentNode =
  | TextNode
  | ElementNode
  | MathNode
  | FeedbackNode
  | RubricNode
  | OpaqueNode
  | GapNode
  | HottextNode
  | PrintedVariableNode
  | TemplateNode
  | InfoControlNode
  | Interaction;

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
