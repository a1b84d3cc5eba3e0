import type { ContentNode, Feedback, OpaqueNode, Standard } from './content.ts';
import type { Finding } from './finding.ts';
import type { MetaField, Origin } from './origin.ts';
import type { Rubric } from './rubric.ts';

export type { MetaField, Origin };
import type {
  OutcomeDeclaration,
  Program,
  ResponseDeclaration,
  Rule,
  TemplateDeclaration,
} from './scoring.ts';
import type { TestStructure } from './testStructure.ts';

export type PointsSource =
  'rule' | 'weight' | 'cc_weighting' | 'qmd_maximumscore' | 'qmd_weighting' | 'declared' | 'run' | 'none';

export interface Item {
  readonly id: string;
  readonly title: string;
  readonly standard: Standard;
  readonly body: readonly ContentNode[];
  readonly responses: readonly ResponseDeclaration[];
  readonly outcomes: readonly OutcomeDeclaration[];
  /** The outcome that carries the score. */
  readonly scoreOutcome: string;
  readonly scoring: Program;
  /** The highest score in points, weights applied and percentages resolved. */
  readonly points: number;
  /** What one unit of the raw score outcome is worth in points. */
  readonly scale: number;
  /** The sources of points the file names, by name, in order of precedence. */
  readonly pointsSources: readonly { readonly source: PointsSource; readonly value: number }[];
  /** The last number of `points` was proved to be the most the program can give, not only the most found. */
  readonly pointsExact: boolean;
  readonly feedback: readonly Feedback[];
  /** Whether several attempts build on one another (QTI adaptive items). */
  readonly adaptive: boolean;
  /** Parameters of the item and the rules that fill them; empty for an ordinary item. */
  readonly templates: readonly TemplateDeclaration[];
  readonly templateRules: readonly Rule[];
  /** Passages shared between items, read where the package has them. */
  readonly stimuli: readonly Stimulus[];
  /**
   * Whole parts of the item of its standard that the tree has no node for: catalogs, companion materials …
   */
  readonly kept: readonly OpaqueNode[];
  readonly category: string | null;
  readonly metadata: readonly MetaField[];
  readonly language: string | null;
  readonly files: readonly ItemFile[];
  readonly origin: Origin | null;
}

/** A passage of its own document that goes before an item's body (QTI 2.2 and 3). */
export interface Stimulus {
  readonly id: string;
  readonly title: string;
  readonly path: string;
  readonly content: readonly ContentNode[];
}

/** A file an item refers to: the resolved package path, and whether the package holds it. */
export interface ItemFile {
  readonly path: string;
  readonly present: boolean;
}

export interface ItemRef {
  readonly item: string;
  /** Multiplies the item's score inside this quiz. */
  readonly weight: number;
}

export interface Draw {
  readonly pick: number;
  /** The bank it draws from, if the pool is one. */
  readonly bank: string | null;
  /** Ids of the items that can be drawn. */
  readonly pool: readonly string[];
  /** Weights of the pool's items in this draw, in its order; null: 1 each. */
  readonly weights: readonly number[] | null;
  readonly pointsEach: number;
  readonly withReplacement: boolean;
}

export interface Section {
  readonly id: string;
  readonly title: string;
  readonly shuffle: boolean;
  readonly items: readonly ItemRef[];
  readonly draw: Draw | null;
  readonly instructions: string | null;
}

export interface QuizSettings {
  readonly attempts: number | 'unlimited' | null;
  readonly timeLimitMinutes: number | null;
  readonly passMark: number | null;
  readonly shuffleItems: boolean | null;
  readonly shuffleChoices: boolean | null;
  /** ISO 8601 with zone. */
  readonly opens: string | null;
  readonly closes: string | null;
  readonly instructions: string | null;
}

export interface Quiz {
  readonly id: string;
  readonly title: string;
  readonly settings: QuizSettings;
  readonly sections: readonly Section[];
  /** The whole of a QTI 2 or 3 test, of which `sections` is the flattened view; null for other sources. */
  readonly test: TestStructure | null;
  readonly metadata: readonly MetaField[];
  readonly origin: Origin | null;
}

export interface Bank {
  readonly id: string;
  readonly title: string;
  readonly items: readonly string[];
  readonly metadata: readonly MetaField[];
  readonly origin: Origin | null;
}

export interface Link {
  readonly id: string;
  readonly title: string;
  readonly kind: 'web' | 'lti';
  readonly url: string;
  /** The resource's XML, so that what we do not model goes along. */
  readonly xml: string | null;
}

export interface FileRef {
  readonly path: string;
  readonly bytes: number;
  readonly sha256: string;
  /** Base64 of a picture that stood inside an item and became a file of its own. */
  readonly embedded?: string;
  /** Where its bytes stand in the source, where it goes by another name. */
  readonly from?: string;
}

/** The folder outline of a course package. `refers` names a quiz, a bank, a link or a file path. */
export interface OutlineNode {
  readonly id: string;
  readonly title: string;
  readonly refers: string | null;
  readonly children: readonly OutlineNode[];
}

export interface Source {
  readonly name: string;
  readonly bytes: number;
  readonly sha256: string;
}

export interface Format {
  readonly container:
    'zip' | 'xml' | 'json' | 'csv' | 'xlsx' | 'docx' | 'rtf' | 'odt' | 'html' | 'pdf' | 'text';
  readonly standard: 'qti' | 'common-cartridge' | 'case' | 'table' | 'document' | 'text' | 'unknown';
  readonly version: string | null;
}

/** How a document of questions was read. */
export interface DocumentReading {
  readonly path: string;
  readonly layout: {
    readonly question: string;
    readonly choice: string;
    readonly key: string;
    /** What each labelled line means, by its name. */
    readonly labels: Readonly<Record<string, string>>;
    readonly points: string | null;
    /** 0 to 1. */
    readonly sure: number;
  };
  /** Whether the layout was found, said of this document, or is remembered for documents that look like it. */
  readonly by: 'found' | 'said' | 'known';
  /** What it looks like when nothing is known of it; null where its layout was said. */
  readonly looks: readonly string[] | null;
  /** How many blocks it has; they are counted from 1. */
  readonly blocks: number;
  /** Blocks that are in no item, title, list of answers or passage. */
  readonly unread: readonly { readonly from: number; readonly to: number; readonly text: string }[];
}

/** Everything one source contains. */
export interface Holding {
  readonly source: Source;
  readonly format: Format;
  readonly title: string;
  readonly quizzes: readonly Quiz[];
  readonly banks: readonly Bank[];
  readonly items: readonly Item[];
  readonly rubrics: readonly Rubric[];
  readonly links: readonly Link[];
  readonly files: readonly FileRef[];
  readonly outline: readonly OutlineNode[];
  readonly findings: readonly Finding[];
  /** Documents of questions it was read from; none for packages. */
  readonly documents?: readonly DocumentReading[];
}
