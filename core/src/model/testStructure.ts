import type { ContentNode } from './content.ts';
import type { Expr, OutcomeDeclaration, Rule } from './scoring.ts';

/**
 * The whole of a QTI 2 or 3 test (QTI 2.1 Assessment Test, Section and Item Information Model,
 * "assessmentTest").
 */
export interface TestStructure {
  readonly outcomes: readonly OutcomeDeclaration[];
  readonly timeLimits: TimeLimits | null;
  readonly parts: readonly TestPart[];
  readonly outcomeRules: readonly Rule[];
  /** Names of outcome processing that could not be read. */
  readonly untranslated: readonly string[];
  readonly feedback: readonly TestFeedback[];
}

/** Seconds. */
export interface TimeLimits {
  readonly minTime: number | null;
  readonly maxTime: number | null;
  readonly allowLateSubmission: boolean;
}

/** Only what the source says; null is silent. maxAttempts 0 is unlimited. */
export interface SessionControl {
  readonly maxAttempts: number | null;
  readonly flags: Readonly<Record<string, boolean>>;
}

interface Controlled {
  readonly id: string;
  readonly preConditions: readonly Expr[];
  readonly branchRules: readonly { readonly target: string; readonly when: Expr }[];
  readonly session: SessionControl | null;
  readonly timeLimits: TimeLimits | null;
}

export interface TestPart extends Controlled {
  readonly navigationMode: 'linear' | 'nonlinear';
  readonly submissionMode: 'individual' | 'simultaneous';
  readonly sections: readonly TestSection[];
}

export interface TestSection extends Controlled {
  readonly kind: 'section';
  readonly title: string;
  readonly visible: boolean;
  readonly required: boolean;
  readonly fixed: boolean;
  readonly keepTogether: boolean;
  readonly selection: { readonly select: number; readonly withReplacement: boolean } | null;
  readonly shuffle: boolean;
  readonly rubrics: readonly {
    readonly view: string;
    readonly use: string;
    readonly content: readonly ContentNode[];
  }[];
  readonly children: readonly (TestSection | TestItemRef)[];
}

export interface TestItemRef extends Controlled {
  readonly kind: 'item';
  /** The id of the item in the holding; null where the reference leads to nothing. */
  readonly item: string | null;
  readonly href: string;
  readonly required: boolean;
  readonly fixed: boolean;
  readonly categories: readonly string[];
  readonly weights: readonly { readonly id: string; readonly value: number }[];
  readonly variableMappings: readonly { readonly from: string; readonly to: string }[];
  readonly templateDefaults: readonly { readonly id: string; readonly value: Expr }[];
}

export interface TestFeedback {
  readonly id: string;
  readonly title: string;
  readonly access: 'atEnd' | 'during';
  readonly outcome: string;
  readonly show: boolean;
  readonly content: readonly ContentNode[];
}

/** The use of a rubric block that speaks for the whole test rather than for its section. */
export const WHOLE_TEST_USE = 'instructions';

/** The sections of a test as the quiz has them: flattened, those that only hold others left out. */
export function flatSections(test: TestStructure): TestSection[] {
  const out: TestSection[] = [];
  const visit = (section: TestSection): void => {
    const nested = section.children.filter((c): c is TestSection => c.kind === 'section');
    if (section.children.length > nested.length || nested.length === 0) out.push(section);
    nested.forEach(visit);
  };
  test.parts.forEach((p) => p.sections.forEach(visit));
  return out;
}
