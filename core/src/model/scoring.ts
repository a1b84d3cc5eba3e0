/**
 * The one expression language for all formats: the response-processing operators of QTI 2 and 3
 * (QTI 2.1 Information Model, "Response Processing" and "Expressions"). QTI 1.2 `resprocessing` is
 * translated into it.
 */

export const BASE_TYPES = [
  'identifier',
  'boolean',
  'integer',
  'float',
  'string',
  'point',
  'pair',
  'directedPair',
  'duration',
  'file',
  'uri',
  'intOrIdentifier',
] as const;
export type BaseType = (typeof BASE_TYPES)[number];
export type Cardinality = 'single' | 'multiple' | 'ordered' | 'record';

/**
 * One value of a base type: numbers for integer, float and duration, booleans, else text ("x y" for a point,
 * "a b" for pairs).
 */
export type Scalar = string | number | boolean;

/** Operators that take sub-expressions; attributes stand in `attrs` under QTI's names. */
export const OPERATORS = [
  'multiple',
  'ordered',
  'containerSize',
  'isNull',
  'index',
  'fieldValue',
  'random',
  'member',
  'delete',
  'contains',
  'substring',
  'not',
  'and',
  'or',
  'anyN',
  'match',
  'stringMatch',
  'patternMatch',
  'equal',
  'equalRounded',
  'inside',
  'lt',
  'gt',
  'lte',
  'gte',
  'durationLT',
  'durationGTE',
  'sum',
  'product',
  'subtract',
  'divide',
  'power',
  'integerDivide',
  'integerModulus',
  'truncate',
  'round',
  'roundTo',
  'integerToFloat',
  'max',
  'min',
  'gcd',
  'lcm',
  'repeat',
  'statsOperator',
  'mathOperator',
  'customOperator',
  'randomInteger',
  'randomFloat',
  'mathConstant',
  'testVariables',
  'numberCorrect',
  'numberIncorrect',
  'numberPresented',
  'numberResponded',
  'numberSelected',
  'outcomeMaximum',
  'outcomeMinimum',
] as const;
export type Operator = (typeof OPERATORS)[number];

export type Expr =
  | { readonly op: 'baseValue'; readonly baseType: BaseType; readonly value: Scalar }
  | {
      readonly op: 'variable' | 'correct' | 'default' | 'mapResponse' | 'mapResponsePoint';
      readonly id: string;
      /** In outcome processing: the weight of the item reference that a variable is multiplied by. */
      readonly weight?: string;
    }
  | { readonly op: 'null' }
  | {
      readonly op: 'call';
      readonly name: Operator;
      readonly args: readonly Expr[];
      readonly attrs?: Readonly<Record<string, string>>;
    };

export type Rule =
  | {
      readonly do: 'if';
      readonly branches: readonly { readonly when: Expr; readonly then: readonly Rule[] }[];
      readonly otherwise: readonly Rule[];
    }
  | { readonly do: 'set'; readonly id: string; readonly value: Expr }
  | { readonly do: 'lookup'; readonly id: string; readonly value: Expr }
  | { readonly do: 'exit' }
  /** Template processing: the right answer or the starting value of a response, and a condition to be met. */
  | { readonly do: 'setCorrect' | 'setDefault'; readonly id: string; readonly value: Expr }
  | { readonly do: 'constraint'; readonly value: Expr };

/** A scoring program. `template` is the last segment of the standard template it came from, if any. */
export interface Program {
  readonly template?: 'match_correct' | 'map_response' | 'map_response_point';
  readonly rules: readonly Rule[];
  /**
   * Constructs that could not be translated; when there are any, the program's answers are not to be trusted.
   */
  readonly untranslated: readonly string[];
}

export interface Mapping {
  readonly lowerBound: number | null;
  readonly upperBound: number | null;
  readonly defaultValue: number;
  readonly entries: readonly {
    readonly key: Scalar;
    readonly value: number;
    readonly caseSensitive: boolean;
  }[];
}

export type Shape = 'circle' | 'rect' | 'poly' | 'ellipse' | 'default';

export interface AreaMapping {
  readonly lowerBound: number | null;
  readonly upperBound: number | null;
  readonly defaultValue: number;
  readonly entries: readonly { readonly shape: Shape; readonly coords: string; readonly value: number }[];
}

export interface ResponseDeclaration {
  readonly id: string;
  readonly cardinality: Cardinality;
  readonly baseType: BaseType | null;
  /** The declared correct values, empty where the source declares none. */
  readonly correct: readonly Scalar[];
  readonly mapping: Mapping | null;
  readonly areaMapping: AreaMapping | null;
  /** What the response holds before anything is answered. */
  readonly defaultValue?: readonly Scalar[];
}

export interface OutcomeDeclaration {
  readonly id: string;
  readonly cardinality: Cardinality;
  readonly baseType: BaseType | null;
  readonly defaultValue: readonly Scalar[];
  readonly normalMaximum: number | null;
  readonly normalMinimum: number | null;
  readonly externalScored: boolean;
  readonly lookup: LookupTable | null;
  readonly masteryValue?: number;
  /** Attributes that say how to read it: interpretation, view … */
  readonly attrs?: Readonly<Record<string, string>>;
}

/** A variable of a parameterised item; template processing gives it its value. */
export interface TemplateDeclaration {
  readonly id: string;
  readonly cardinality: Cardinality;
  readonly baseType: BaseType | null;
  readonly defaultValue: readonly Scalar[];
  readonly attrs: Readonly<Record<string, string>>;
}

/** matchTable (exact source values) or interpolationTable (first entry not above the source value). */
export interface LookupTable {
  readonly kind: 'match' | 'interpolation';
  readonly entries: readonly {
    readonly source: number;
    readonly target: Scalar;
    readonly includeBoundary: boolean;
  }[];
  readonly defaultValue: Scalar | null;
}
