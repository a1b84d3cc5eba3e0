import type { Choice, ContentNode, Interaction } from '../model/content.ts';
import { mapRule } from '../model/mapRule.ts';
import type {
  Expr,
  Operator,
  OutcomeDeclaration,
  ResponseDeclaration,
  Rule,
  Scalar,
} from '../model/scoring.ts';
import { interactionsOf } from '../model/visit.ts';
import { TEMPLATE_RESPONSE, type Recognisable } from './run.ts';

/** Longer programs and lists have a make of their own more often than not. */
const MOST_CHOICES = 64;
const MOST_EXPRESSIONS = 400;

/** Names that are one text however they are typed. */
const NAME = /^[!-~]{1,64}$/u;
/** Before the number of a choice, and of a response; characters that no document has. */
const CHOICE = '\u0003';
const RESPONSE = '\u0004';

/** Operators that compare values, names too. */
const COMPARING: ReadonlySet<Operator> = new Set(['match', 'member', 'contains', 'delete']);
/** Operators that gather names, count them, or ask for one by its place. */
const GATHERING: ReadonlySet<Operator> = new Set(['multiple', 'ordered', 'index', 'containerSize', 'isNull']);
/** Operators on truths and numbers: of a name they make nothing. */
const PLAIN: ReadonlySet<Operator> = new Set([
  'and',
  'or',
  'not',
  'anyN',
  'sum',
  'product',
  'subtract',
  'divide',
  'min',
  'max',
  'round',
  'truncate',
  'equal',
  'lt',
  'gt',
  'lte',
  'gte',
]);

/** Where one of a few choices is picked, all there is has been tried in the time that finding the skeleton takes. */
const worthwhile = ({ responses: [first, ...others] }: Recognisable): boolean =>
  first !== undefined && (others.length > 0 || first.cardinality !== 'single');

/** Makes the skeleton of an item, and remembers what its plain names stand for. */
export class Stripping {
  readonly own = new Map<string, string>();
  readonly #choices = new Map<string, string>();
  readonly #responses = new Map<string, string>();
  /** Choices whatever the case of their letters. */
  readonly #folded = new Set<string>();
  #expressions = 0;
  #fits = true;

  constructor(private readonly item: Recognisable) {}

  skeleton(): Recognisable | null {
    const { item } = this;
    const { scoring, scoreOutcome, scale, standard } = item;
    if (item.adaptive || item.templates.length > 0 || item.templateRules.length > 0) return null;
    if (scoring.untranslated.length > 0 || !Number.isFinite(scale) || !worthwhile(item)) return null;
    this.#nameResponses();
    if (!this.#fits) return null;
    const interactions = interactionsOf(item);
    const body = interactions.map((i) => this.#interaction(i));
    const asked = new Set(interactions.map((i) => ('responseId' in i ? i.responseId : null)));
    if (!this.#fits || !item.responses.every((r) => asked.has(r.id)) || !this.#foldedApart()) return null;
    const responses = item.responses.map((r) => this.#response(r));
    const outcomes = item.outcomes.map((o) => this.#outcome(o));
    const rules = scoring.rules.map((r) => this.#rule(r));
    if (!this.#fits) return null;
    return {
      standard,
      body,
      responses,
      outcomes,
      scoring: { ...(scoring.template ? { template: scoring.template } : {}), rules, untranslated: [] },
      scoreOutcome,
      scale,
      templates: [],
      templateRules: [],
      adaptive: false,
    };
  }

  /** What does not fit has no skeleton. */
  #unless(fits: boolean): void {
    if (!fits) this.#fits = false;
  }

  #nameResponses(): void {
    const { responses, outcomes, scoreOutcome } = this.item;
    const taken = new Set([scoreOutcome, ...outcomes.map((o) => o.id)]);
    for (const { id } of responses) {
      this.#unless(!taken.has(id) && !this.#responses.has(id));
      const plain = id === TEMPLATE_RESPONSE ? id : `${RESPONSE}${this.#responses.size}`;
      this.#responses.set(id, plain);
      this.own.set(plain, id);
    }
  }

  #interaction(interaction: Interaction): ContentNode {
    switch (interaction.kind) {
      case 'choice':
      case 'order': {
        const { kind, minChoices, maxChoices } = interaction;
        return { kind, ...this.#asked(interaction), minChoices, maxChoices };
      }
      case 'inlineChoice':
        return { kind: interaction.kind, ...this.#asked(interaction) };
      default:
        this.#unless(false);
        return interaction;
    }
  }

  #asked({ responseId, choices }: { readonly responseId: string; readonly choices: readonly Choice[] }): {
    readonly responseId: string;
    readonly prompt: [];
    readonly shuffle: false;
    readonly choices: readonly Choice[];
  } {
    this.#unless(this.#responses.has(responseId) && choices.length > 0);
    return {
      responseId: this.#responses.get(responseId) ?? responseId,
      prompt: [],
      shuffle: false,
      choices: choices.map(({ id }) => ({ id: this.#nameChoice(id), content: [], fixed: false })),
    };
  }

  #nameChoice(id: string): string {
    let plain = this.#choices.get(id);
    if (plain === undefined) {
      this.#unless(NAME.test(id) && this.#choices.size < MOST_CHOICES);
      plain = `${CHOICE}${this.#choices.size}`;
      this.#choices.set(id, plain);
      this.#folded.add(id.toLowerCase());
      this.own.set(plain, id);
    }
    return plain;
  }

  /** Whether choices are told apart by a map that does not mind the case of letters. */
  #foldedApart(): boolean {
    return this.#folded.size === this.#choices.size;
  }

  #response(response: ResponseDeclaration): ResponseDeclaration {
    const { id, cardinality, baseType, correct, mapping, areaMapping, defaultValue } = response;
    this.#unless(baseType === 'identifier' && cardinality !== 'record' && areaMapping === null);
    this.#unless((defaultValue ?? []).length === 0);
    return {
      id: this.#responses.get(id)!,
      cardinality,
      baseType,
      correct: correct.map((v) => this.#choice(v)),
      mapping: mapping && {
        lowerBound: this.#number(mapping.lowerBound),
        upperBound: this.#number(mapping.upperBound),
        defaultValue: this.#number(mapping.defaultValue),
        entries: mapping.entries.map((e) => ({
          key: this.#choice(e.key),
          value: this.#number(e.value),
          caseSensitive: e.caseSensitive,
        })),
      },
      areaMapping: null,
    };
  }

  /** One of the choices there are. */
  #choice(value: Scalar): Scalar {
    const plain = this.#choices.get(String(value));
    this.#unless(typeof value === 'string' && plain !== undefined);
    return plain ?? value;
  }

  /** What is one number however it is written. */
  #number<T extends Scalar | null>(value: T): T {
    this.#unless(typeof value !== 'number' || (Number.isFinite(value) && !Object.is(value, -0)));
    return value;
  }

  #outcome(outcome: OutcomeDeclaration): OutcomeDeclaration {
    const { id, cardinality, baseType, defaultValue, normalMaximum, normalMinimum, externalScored } = outcome;
    this.#unless(outcome.lookup === null);
    return {
      id,
      cardinality,
      baseType,
      defaultValue: defaultValue.map((v) => this.#number(v)),
      normalMaximum: this.#number(normalMaximum),
      normalMinimum: this.#number(normalMinimum),
      externalScored,
      lookup: null,
    };
  }

  #rule(rule: Rule): Rule {
    return mapRule(
      rule,
      (e) => this.#expression(e),
      (step) => {
        this.#unless(step.do === 'set');
        return step.do === 'set'
          ? { do: 'set', id: this.#variable(step.id), value: this.#expression(step.value) }
          : step;
      },
    );
  }

  #variable(id: string): string {
    return this.#responses.get(id) ?? id;
  }

  #expression(expr: Expr): Expr {
    this.#expressions += 1;
    this.#unless(this.#expressions <= MOST_EXPRESSIONS);
    if (!this.#fits) return expr;
    switch (expr.op) {
      case 'null':
        return { op: 'null' };
      case 'baseValue':
        return { op: 'baseValue', baseType: expr.baseType, value: this.#literal(expr.value) };
      case 'call':
        return this.#call(expr);
      default:
        this.#unless(expr.weight === undefined && expr.op !== 'mapResponsePoint');
        return { op: expr.op, id: this.#variable(expr.id) };
    }
  }

  /** A name of no choice is one of no choice in every item of this make: it has to differ from all. */
  #literal(value: Scalar): Scalar {
    if (typeof value !== 'string') return this.#number(value);
    const plain = this.#choices.get(value);
    if (plain !== undefined) return plain;
    this.#unless(NAME.test(value) && !this.#folded.has(value.toLowerCase()));
    return value;
  }

  #call({ op, name, args, attrs }: Extract<Expr, { op: 'call' }>): Expr {
    const comparing = COMPARING.has(name);
    this.#unless(comparing || GATHERING.has(name) || PLAIN.has(name));
    // An attribute may say a number by the name of a variable.
    const given = Object.entries(attrs ?? {});
    this.#unless(given.every(([, v]) => !this.#responses.has(v)));
    if (comparing) this.#unless(args.every((a) => this.#isNames(a)));
    return {
      op,
      name,
      args: args.map((a) => this.#expression(a)),
      ...(given.length > 0 ? { attrs: Object.fromEntries(given.sort(([a], [b]) => (a < b ? -1 : 1))) } : {}),
    };
  }

  /** Whether an expression comes to names, or nothing: a number is equal to a name that reads like it. */
  #isNames(expr: Expr): boolean {
    switch (expr.op) {
      case 'null':
        return true;
      case 'baseValue':
        return expr.baseType === 'identifier' && typeof expr.value === 'string';
      case 'variable':
      case 'correct':
        return this.#responses.has(expr.id);
      case 'call':
        return (
          (expr.name === 'multiple' || expr.name === 'ordered' || expr.name === 'index') &&
          expr.args.every((a) => this.#isNames(a))
        );
      default:
        return false;
    }
  }
}
