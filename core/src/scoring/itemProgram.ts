import { NONE } from '../model/lists.ts';
import { interactionFor } from '../model/options.ts';
import { own, put } from '../model/own.ts';
import type { OutcomeDeclaration, ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { answerValue } from './answered.ts';
import { spend } from './budget.ts';
import { compileRules, type Act, type Names, type Step } from './compile.ts';
import type { Size } from './geometry.ts';
import { named } from './named.ts';
import type { Environment } from './operators/operator.ts';
import { seeded } from './random.ts';
import {
  NO_SIZE,
  ORDINARY,
  sameProgram,
  type Answers,
  type Instance,
  type Run,
  type Scorable,
} from './run.ts';
import { held, type Value } from './value.ts';

/** An item's response processing, compiled. One run after the other uses the same places. */
export class ItemProgram implements Names, Environment {
  private readonly act: Act;
  /** Where answers are put, by response and by the identifier that is asked for. */
  private readonly answerPlaces: number[] = [];
  private readonly answers = new Map<string, number>();
  /** Outcomes by their places, in the order in which they are given. */
  private readonly outcomePlaces = new Map<string, number>();
  /** What declared outcomes begin with, and where. */
  private readonly starts: Value[] = [];
  private readonly startPlaces: number[] = [];
  private readonly values: (Value | undefined)[] = [];
  private readonly found = new Map<string, { readonly raw: number; readonly steps: number }>();
  private generator: (() => number) | null = null;
  private seed = 1;
  private readonly running: Run;
  readonly parameters: boolean;
  readonly test = null;
  readonly size = NO_SIZE;

  constructor(readonly item: Scorable) {
    this.parameters = hasParameters(item);
    for (const { id } of item.responses) {
      const place = this.answers.get(id) ?? this.newPlace();
      this.answers.set(id, place);
      this.answerPlaces.push(place);
    }
    for (const o of item.outcomes) {
      this.startPlaces.push(this.outcomePlace(o.id));
      this.starts.push(held(o.cardinality, o.baseType, o.defaultValue));
    }
    this.act = compileRules(item.scoring.rules, this);
    this.running = { values: this.values, made: ORDINARY, unmet: false, environment: this };
  }

  /** Makes ready for a run: what was answered, what outcomes begin with. */
  begin(answers: Answers, previous: Readonly<Record<string, Value>> | undefined): void {
    const { responses, outcomes } = this.item;
    spend(RUNNING + ((outcomes.length + responses.length) >> 3));
    const { values, running } = this;
    values.fill(undefined);
    running.made = ORDINARY;
    running.unmet = false;
    this.generator = null;
    for (let at = 0; at < outcomes.length; at++) {
      const before = previous ? own(previous, outcomes[at]!.id) : undefined;
      values[this.startPlaces[at]!] = before ?? this.starts[at]!;
    }
    for (let at = 0; at < responses.length; at++) {
      const response = responses[at]!;
      // What is no list is not an answer: what every object has under such a name.
      const given: unknown = answers[response.id];
      values[this.answerPlaces[at]!] = answerValue(
        response,
        Array.isArray(given) ? (given as readonly Scalar[]) : NONE,
      );
    }
  }

  /** Runs it, for a candidate whose parameters are `made`. */
  go(seed: number, made: Instance): void {
    this.seed = seed;
    this.running.made = made;
    this.act(this.running);
  }

  /** What the score of an answer was found to be, and the steps it took. */
  known(key: string): { readonly raw: number; readonly steps: number } | undefined {
    return this.found.get(key);
  }

  remember(key: string, raw: number, steps: number): void {
    if (this.found.size < MOST_REMEMBERED) this.found.set(key, { raw, steps });
  }

  /** What an outcome came to; undefined where it was neither declared nor set. */
  result(id: string): Value | undefined {
    const place = this.outcomePlaces.get(id);
    return place === undefined ? undefined : this.values[place];
  }

  setResult(id: string, value: Value): void {
    this.values[this.outcomePlace(id)] = value;
  }

  results(): Record<string, Value> {
    const out: Record<string, Value> = {};
    for (const [id, place] of this.outcomePlaces) {
      const value = this.values[place];
      if (value === undefined) continue;
      if (id === '__proto__') put(out, id, value);
      else out[id] = value;
    }
    return out;
  }

  private newPlace(): number {
    return this.values.push(undefined) - 1;
  }

  private outcomePlace(id: string): number {
    let place = this.outcomePlaces.get(id);
    if (place === undefined) this.outcomePlaces.set(id, (place = this.newPlace()));
    return place;
  }

  // What compiling asks.

  /** What was answered; else a parameter; else an outcome. */
  read(id: string): Step {
    const answer = this.answers.get(id);
    const place = answer ?? this.outcomePlace(id);
    if (answer !== undefined || !this.parameters) return ({ values }) => values[place] ?? null;
    return ({ values, made: { templates } }) => {
      const made = templates.get(id);
      return made === undefined ? (values[place] ?? null) : made;
    };
  }

  write(id: string): (run: Run, value: Value) => void {
    const place = this.outcomePlace(id);
    return ({ values }, value) => void (values[place] = value);
  }

  writeOutcome(id: string): (run: Run, value: Value) => void {
    return this.write(id);
  }

  response(id: string): ResponseDeclaration | undefined {
    return named(this.item.responses, id);
  }

  outcome(id: string): OutcomeDeclaration | undefined {
    return named(this.item.outcomes, id);
  }

  sizeOf(responseId: string): Size {
    const interaction = interactionFor(this.item, responseId);
    if (!interaction) return NO_SIZE;
    if (interaction.kind === 'positionObject') return interaction.stage;
    return 'picture' in interaction ? interaction.picture : NO_SIZE;
  }

  set(): void {
    // Only template processing sets right answers and starting values.
  }

  // What operators ask while it runs.

  variable(id: string): Value {
    return this.read(id)(this.running);
  }

  random(): number {
    this.generator ??= seeded(this.seed + 7);
    return this.generator();
  }
}

/** Answers whose score is remembered, of one item. */
const MOST_REMEMBERED = 1024;
/** What a run costs whatever it does. */
const RUNNING = 8;

export const hasParameters = (item: Pick<Scorable, 'templates' | 'templateRules'>): boolean =>
  item.templates.length > 0 || item.templateRules.length > 0;

/** Programs of items that are at hand. Twice so many are kept at most, those made last. */
const AT_HAND = 16;
let recent = new Map<Scorable['scoring'], ItemProgram>();
let before = new Map<Scorable['scoring'], ItemProgram>();

/** The compiled program of an item. */
export function programOf(item: Scorable): ItemProgram {
  const known = recent.get(item.scoring) ?? before.get(item.scoring);
  if (known && sameProgram(known.item, item)) return known;
  const made = new ItemProgram(item);
  if (recent.size >= AT_HAND) [before, recent] = [recent, new Map()];
  recent.set(item.scoring, made);
  return made;
}
