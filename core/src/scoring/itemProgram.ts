import { interactionFor } from '../model/options.ts';
import { own, put } from '../model/own.ts';
import type { OutcomeDeclaration, ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { answerValue } from './answered.ts';
import { spend } from './budget.ts';
import { compileRules, type Act, type Names, type Step } from './compile.ts';
import type { Size } from './geometry.ts';
import { named } from './named.ts';
import { seeded } from './random.ts';
import { NO_SIZE, ORDINARY, type Answers, type Instance, type Run, type Scorable } from './run.ts';
import { held, type Value } from './value.ts';

const NONE: readonly Scalar[] = [];

/** An item's response processing, compiled. One run after the other uses the same places. */
export class ItemProgram {
  private readonly act: Act;
  private readonly answerPlaces: readonly number[];
  /** Outcomes by their places, in the order in which they are given. */
  private readonly outcomePlaces = new Map<string, number>();
  /** What declared outcomes begin with, and where. */
  private readonly starts: readonly Value[];
  private readonly startPlaces: readonly number[];
  private readonly values: (Value | undefined)[] = [];
  private random: (() => number) | null = null;
  private seed = 1;
  private readonly run: Run;

  constructor(private readonly item: Scorable) {
    const places = new Map<string, number>();
    this.answerPlaces = item.responses.map(({ id }) => {
      const place = places.get(id) ?? this.newPlace();
      places.set(id, place);
      return place;
    });
    this.startPlaces = item.outcomes.map(({ id }) => this.outcomePlace(id));
    this.starts = item.outcomes.map((o) => held(o.cardinality, o.baseType, o.defaultValue));
    this.act = compileRules(item.scoring.rules, this.names(places));
    this.run = {
      values: this.values,
      made: ORDINARY,
      unmet: false,
      environment: {
        variable: (id) => this.reads(id, places)(this.run),
        random: () => (this.random ??= seeded(this.seed + 7))(),
        test: null,
        size: NO_SIZE,
      },
    };
  }

  /** Whether it is the program of an item: copies share what it was made from. */
  fits(item: Scorable): boolean {
    const { item: mine } = this;
    return (
      mine.scoring === item.scoring &&
      mine.responses === item.responses &&
      mine.outcomes === item.outcomes &&
      mine.templates === item.templates &&
      mine.templateRules === item.templateRules &&
      mine.body === item.body
    );
  }

  /** Makes ready for a run: what was answered, what outcomes begin with. */
  begin(answers: Answers, previous: Readonly<Record<string, Value>> | undefined): void {
    const { responses, outcomes } = this.item;
    spend(RUNNING + ((outcomes.length + responses.length) >> 3));
    const { values, run } = this;
    values.fill(undefined);
    run.made = ORDINARY;
    run.unmet = false;
    this.random = null;
    for (let at = 0; at < outcomes.length; at++) {
      const { id } = outcomes[at]!;
      values[this.outcomePlaces.get(id)!] = (previous ? own(previous, id) : undefined) ?? this.starts[at]!;
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
    this.run.made = made;
    this.act(this.run);
  }

  outcome(id: string): Value | undefined {
    const place = this.outcomePlaces.get(id);
    return place === undefined ? undefined : this.values[place];
  }

  setOutcome(id: string, value: Value): void {
    this.values[this.outcomePlace(id)] = value;
  }

  outcomes(): Record<string, Value> {
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

  private names(answers: ReadonlyMap<string, number>): Names {
    const { item } = this;
    const write: Names['write'] = (id) => {
      const place = this.outcomePlace(id);
      return ({ values }, value) => void (values[place] = value);
    };
    return {
      read: (id) => this.reads(id, answers),
      write,
      writeOutcome: write,
      response: (id): ResponseDeclaration | undefined => named(item.responses, id),
      outcome: (id): OutcomeDeclaration | undefined => named(item.outcomes, id),
      sizeOf: (id) => sizeOf(item, id),
      parameters: hasParameters(item),
      set: () => undefined,
    };
  }

  /** What was answered; else a parameter; else an outcome. */
  private reads(id: string, answers: ReadonlyMap<string, number>): Step {
    const answer = answers.get(id);
    if (answer !== undefined) return ({ values }) => values[answer] ?? null;
    const place = this.outcomePlace(id);
    if (!hasParameters(this.item)) return ({ values }) => values[place] ?? null;
    return ({ values, made: { templates } }) => {
      const made = templates.get(id);
      return made === undefined ? (values[place] ?? null) : made;
    };
  }
}

/** What a run costs whatever it does. */
const RUNNING = 8;

export const hasParameters = (item: Pick<Scorable, 'templates' | 'templateRules'>): boolean =>
  item.templates.length > 0 || item.templateRules.length > 0;

/** The picture a response of points refers to. */
function sizeOf(item: Pick<Scorable, 'body'>, responseId: string): Size {
  const interaction = interactionFor(item, responseId);
  if (!interaction) return NO_SIZE;
  if (interaction.kind === 'positionObject') return interaction.stage;
  return 'picture' in interaction ? interaction.picture : NO_SIZE;
}

/** Programs of items that are at hand. Twice so many are kept, those met last. */
const AT_HAND = 16;
let recent = new Map<Scorable['scoring'], ItemProgram>();
let before = new Map<Scorable['scoring'], ItemProgram>();

/** The compiled program of an item. */
export function programOf(item: Scorable): ItemProgram {
  const known = recent.get(item.scoring) ?? before.get(item.scoring);
  if (known?.fits(item)) return known;
  const made = new ItemProgram(item);
  if (recent.size >= AT_HAND) [before, recent] = [recent, new Map()];
  recent.set(item.scoring, made);
  return made;
}
