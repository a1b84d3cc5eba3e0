import type { ChoiceInteraction, ContentNode, ElementNode, Picture, TextNode } from './content.ts';
import type { Holding, Item, QuizSettings } from './holding.ts';
import { NO_ATTRIBUTES, NONE } from './lists.ts';
import type {
  BaseType,
  Cardinality,
  Expr,
  Mapping,
  Operator,
  OutcomeDeclaration,
  Program,
  ResponseDeclaration,
  Rule,
  Scalar,
} from './scoring.ts';

/** Small factories that set every field, so that made-up trees are valid too. */

export const text = (value: string): TextNode => ({ kind: 'text', text: value });

export const element = (
  name: string,
  children: readonly ContentNode[] = [],
  attrs: Readonly<Record<string, string>> = NO_ATTRIBUTES,
): ElementNode => ({ kind: 'element', name, attrs, children });

/** A picture that an interaction stood on, as one to look at. */
export const picture = (of: Picture): ElementNode =>
  element('p', [
    element('img', [], {
      src: of.src,
      alt: of.alt,
      ...(of.width === null ? {} : { width: String(of.width) }),
      ...(of.height === null ? {} : { height: String(of.height) }),
    }),
  ]);

export const call = (
  name: Operator,
  args: readonly Expr[],
  attrs?: Readonly<Record<string, string>>,
): Expr => (attrs ? { op: 'call', name, args, attrs } : { op: 'call', name, args });

export const value = (baseType: BaseType, v: Scalar): Expr => ({ op: 'baseValue', baseType, value: v });
export const number = (v: number): Expr => value('float', v);
export const variable = (id: string): Expr => ({ op: 'variable', id });
export const set = (id: string, v: Expr): Rule => ({ do: 'set', id, value: v });
export const when = (condition: Expr, then: readonly Rule[], otherwise: readonly Rule[] = []): Rule => ({
  do: 'if',
  branches: [{ when: condition, then }],
  otherwise,
});

const NO_PROGRAM: Program = { rules: [], untranslated: [] };

export function response(
  id: string,
  cardinality: Cardinality,
  baseType: BaseType | null,
  correct: readonly Scalar[] = NONE,
  mapping: Mapping | null = null,
): ResponseDeclaration {
  return { id, cardinality, baseType, correct, mapping, areaMapping: null };
}

export function outcome(id: string, over: Partial<OutcomeDeclaration> = {}): OutcomeDeclaration {
  return {
    id,
    cardinality: 'single',
    baseType: 'float',
    defaultValue: [0],
    normalMaximum: null,
    normalMinimum: null,
    externalScored: false,
    lookup: null,
    ...over,
  };
}

export function choiceInteraction(
  over: Partial<ChoiceInteraction> & { responseId: string },
): ChoiceInteraction {
  return { kind: 'choice', shuffle: false, maxChoices: 1, minChoices: 0, prompt: [], choices: [], ...over };
}

export function item(over: Partial<Item> & { id: string }): Item {
  return {
    title: '',
    standard: 'qti2',
    body: [],
    responses: [],
    outcomes: [outcome('SCORE')],
    scoreOutcome: 'SCORE',
    scoring: NO_PROGRAM,
    points: 0,
    scale: 1,
    pointsSources: [],
    pointsExact: true,
    feedback: [],
    adaptive: false,
    templates: [],
    templateRules: [],
    stimuli: [],
    kept: [],
    category: null,
    metadata: [],
    language: null,
    files: [],
    origin: null,
    ...over,
  };
}

export const NO_SETTINGS: QuizSettings = {
  attempts: null,
  timeLimitMinutes: null,
  passMark: null,
  shuffleItems: null,
  shuffleChoices: null,
  opens: null,
  closes: null,
  instructions: null,
};

export function holding(over: Partial<Holding> = {}): Holding {
  return {
    source: { name: 'made-up', bytes: 0, sha256: '' },
    format: { container: 'zip', standard: 'qti', version: '2.1' },
    title: '',
    quizzes: [],
    banks: [],
    items: [],
    rubrics: [],
    links: [],
    files: [],
    outline: [],
    findings: [],
    ...over,
  };
}
