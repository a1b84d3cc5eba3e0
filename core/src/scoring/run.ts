import type { Item } from '../model/holding.ts';
import type { Scalar } from '../model/scoring.ts';
import type { Environment } from './operators/operator.ts';
import type { Size } from './geometry.ts';
import type { Value } from './value.ts';

/**
 * A candidate's answers: response identifier to the scalars given, in order. Absent or empty: not answered.
 */
export type Answers = Readonly<Record<string, readonly Scalar[]>>;

/** What of an item its scoring depends on. */
export type Scorable = Pick<
  Item,
  | 'body'
  | 'responses'
  | 'outcomes'
  | 'scoring'
  | 'scoreOutcome'
  | 'scale'
  | 'templates'
  | 'templateRules'
  | 'adaptive'
>;

/** The response that standard templates speak of (QTI 2.1, "Response Processing Templates"). */
export const TEMPLATE_RESPONSE = 'RESPONSE';

/** What of an item its key and the kind of its scoring depend on. */
export type Recognisable = Scorable & Pick<Item, 'standard'>;

/** Whether two items have one program: copies of an item share what it is made from. */
export const sameProgram = (a: Scorable, b: Scorable): boolean =>
  a.scoring === b.scoring &&
  a.responses === b.responses &&
  a.outcomes === b.outcomes &&
  a.scoreOutcome === b.scoreOutcome &&
  a.templates === b.templates &&
  a.templateRules === b.templateRules &&
  a.body === b.body;

/** What template processing made of an item for one seed. */
export interface Instance {
  readonly templates: ReadonlyMap<string, Value>;
  readonly correct: ReadonlyMap<string, Value>;
  readonly defaults: ReadonlyMap<string, Value>;
}

/** What an item is that has no parameters. */
export const ORDINARY: Instance = { templates: new Map(), correct: new Map(), defaults: new Map() };
export const NO_SIZE: Size = { width: null, height: null };

/** What an operator may ask where there is no run. */
export const NOWHERE: Environment = { variable: () => null, random: () => 0, test: null, size: NO_SIZE };

/** What one run of a program has at hand. */
export interface Run {
  /** Answers and outcomes by their places in the program; undefined where nothing was set. */
  readonly values: (Value | undefined)[];
  readonly environment: Environment;
  made: Instance;
  /** Set when a template constraint was not met. */
  unmet: boolean;
}
