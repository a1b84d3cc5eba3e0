import type { Scalar } from '../model/scoring.ts';
import { RUN_STEPS, spend, stepsLeft, within, withinSteps } from './budget.ts';
import { compileRules, type Names } from './compile.ts';
import { hasParameters, type ItemProgram, programOf } from './itemProgram.ts';
import { named } from './named.ts';
import { seeded } from './random.ts';
import { NO_SIZE, ORDINARY, type Answers, type Instance, type Run, type Scorable } from './run.ts';
import { asNumber, float, held, integer, type Value } from './value.ts';

export type { Answers, Scorable } from './run.ts';

export interface Result {
  readonly outcomes: Readonly<Record<string, Value>>;
  /** The raw value of the score outcome; 0 where it is NULL. */
  readonly raw: number;
  /** In points: raw times the item's scale. */
  readonly score: number;
}

interface Session {
  /** Parameters of the item are filled, and random numbers drawn, from it. Default 1. */
  readonly seed?: number;
  /** Outcomes an earlier attempt left, for adaptive items. */
  readonly previous?: Readonly<Record<string, Value>>;
  readonly attempts?: number;
  /** Seconds. */
  readonly duration?: number;
}

/**
 * A constraint that cannot be met is given up after so many draws (QTI 2.1, "templateConstraint", speaks of
 * 100).
 */
const MAX_DRAWS = 100;

/**
 * Runs an item's program on one set of answers. Deterministic; never throws on content. A run that takes more than
 * `RUN_STEPS` is broken off: outcomes are what they were by then.
 */
export function evaluate(item: Scorable, answers: Answers, session: Session = {}): Result {
  const program = runProgram(item, answers, session);
  const raw = rawOf(program, item);
  return { outcomes: program?.results() ?? {}, raw, score: raw * item.scale };
}

/**
 * Only the raw score of an item for one set of answers; what probing asks for, and often for the same again: what
 * was found is remembered with the steps it took, which it takes again.
 */
export function rawScore(item: Scorable, answers: Answers): number {
  const key = tried(item, answers);
  if (key === null) return rawOf(runProgram(item, answers, ALONE), item);
  const trying: Trying = { item, answers, session: ALONE, program: null, key, raw: null, steps: 0 };
  const whole = withinSteps(RUN_STEPS, tryOne, trying);
  const raw = trying.raw ?? rawOf(trying.program, item);
  if (whole && trying.raw === null) trying.program!.remember(key, raw, trying.steps);
  return raw;
}

interface Trying extends Asked {
  readonly key: string;
  /** What it came to before. */
  raw: number | null;
  steps: number;
}

function tryOne(trying: Trying): void {
  const before = stepsLeft();
  const program = (trying.program = programOf(trying.item));
  const known = program.known(trying.key);
  if (known) {
    trying.raw = known.raw;
    spend(known.steps);
    return;
  }
  run(trying);
  trying.steps = before - stepsLeft();
}

/** What is longer is not asked again and again. */
const MOST_VALUES = 16;
const LONGEST_KEY = 200;

/**
 * The values of an item's one response as one text; characters that no document has are between them, and before what
 * is no text. Null for all else.
 */
function tried({ responses }: Scorable, answers: Answers): string | null {
  if (responses.length !== 1) return null;
  const given: unknown = answers[responses[0]!.id];
  const values = Array.isArray(given) ? (given as readonly Scalar[]) : [];
  if (values.length > MOST_VALUES) return null;
  const [only] = values;
  const key =
    values.length === 1 && typeof only === 'string'
      ? only
      : values.map((v) => (typeof v === 'string' ? `\u0001${v}` : `\u0002${v}`)).join('');
  return key.length <= LONGEST_KEY ? key : null;
}

const ALONE: Session = {};

const rawOf = (program: ItemProgram | null, { scoreOutcome }: Scorable): number =>
  asNumber(program?.result(scoreOutcome) ?? null) ?? 0;

interface Asked {
  readonly item: Scorable;
  readonly answers: Answers;
  readonly session: Session;
  program: ItemProgram | null;
}

/** The item's program as it stands after a run; null where the steps did not even do to make it. */
function runProgram(item: Scorable, answers: Answers, session: Session): ItemProgram | null {
  const asked: Asked = { item, answers, session, program: null };
  withinSteps(RUN_STEPS, run, asked);
  return asked.program;
}

function run(asked: Asked): void {
  const { item, answers, session } = asked;
  const { seed = 1, previous, attempts = 1, duration } = session;
  const program = (asked.program = programOf(item));
  program.begin(answers, previous);
  // Built in: QTI 2.1, "completionStatus", "numAttempts" and "duration".
  if (item.adaptive || session.attempts !== undefined) {
    if (program.result('completionStatus') === undefined)
      program.setResult(
        'completionStatus',
        previous?.['completionStatus'] ?? held('single', 'identifier', ['unknown']),
      );
    program.setResult('numAttempts', integer(attempts));
  }
  if (duration !== undefined) program.setResult('duration', float(duration));
  program.go(seed, instantiate(item, seed));
}

/** Runs template processing: the same seed gives the same item. */
export function instantiate(
  item: Pick<Scorable, 'templates' | 'templateRules' | 'responses'>,
  seed: number,
): Instance {
  if (!hasParameters(item)) return ORDINARY;
  const filling = new Filling(item);
  const random = seeded(seed);
  const run: Run = {
    values: [],
    made: filling,
    unmet: false,
    environment: {
      variable: (id) => filling.templates.get(id) ?? null,
      random,
      test: null,
      size: NO_SIZE,
    },
  };
  const draws = (): void => {
    const act = compileRules(item.templateRules, filling.names);
    for (let draw = 0; draw < MAX_DRAWS; draw++) {
      if (draw > 0) filling.begin();
      run.unmet = false;
      act(run);
      if (!run.unmet) return;
    }
  };
  within(RUN_STEPS, draws, () => undefined);
  return filling;
}

/** What template processing fills; what an unmet constraint has filled is begun anew. */
class Filling implements Instance {
  readonly templates = new Map<string, Value>();
  readonly correct = new Map<string, Value>();
  readonly defaults = new Map<string, Value>();
  readonly names: Names;

  constructor(private readonly item: Pick<Scorable, 'templates' | 'responses'>) {
    this.begin();
    this.names = {
      read: (id) => () => this.templates.get(id) ?? null,
      write: (id) => (_, value) => void this.templates.set(id, value),
      writeOutcome: () => () => undefined,
      response: (id) => named(item.responses, id),
      outcome: () => undefined,
      sizeOf: () => NO_SIZE,
      parameters: true,
      set: (what, id, value) => void this[what].set(id, value),
    };
  }

  begin(): void {
    for (const map of [this.templates, this.correct, this.defaults]) map.clear();
    for (const t of this.item.templates)
      this.templates.set(t.id, held(t.cardinality, t.baseType, t.defaultValue));
  }
}
