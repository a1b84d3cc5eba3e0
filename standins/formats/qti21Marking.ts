import type { Accepted, AcceptedNumber, Answer, HeldFeedback, Marking } from '../held.ts';
import type { ReadChoice } from './qti21Read.ts';
import { choiceIn, programOf, type Program } from './qti21Program.ts';
import { attr, inner, kid, kids, numberIn, text, Unknown, type Element } from './xml.ts';

/** What of QTI 2.1's response processing this system knows: one response, marked in one of five ways. */

interface Marked {
  readonly points: number;
  readonly answer: Exclude<Answer, { kind: 'kept' }>;
  readonly feedback: HeldFeedback[];
}

/** @throws Unknown where it is marked in another way */
export function marked21(el: Element, interaction: Element, choice: ReadChoice | null): Marked {
  const declarations = kids(el, 'responseDeclaration');
  const [declaration] = declarations;
  if (!declaration || declarations.length > 1) throw new Unknown('not one response');
  if (attr(declaration, 'identifier') !== attr(interaction, 'responseIdentifier'))
    throw new Unknown('another response');
  const score = kids(el, 'outcomeDeclaration').find((o) => attr(o, 'identifier') === 'SCORE');
  if (
    kids(el, 'outcomeDeclaration').some((o) => !['SCORE', 'FEEDBACK'].includes(attr(o, 'identifier') ?? ''))
  )
    throw new Unknown('other outcomes');
  const program = programOf(kid(el, 'responseProcessing'));
  const feedback = kids(el, 'modalFeedback').map((f): HeldFeedback => {
    const id = attr(f, 'identifier') ?? '';
    if (!program.shown.has(id) || attr(f, 'showHide') === 'hide') throw new Unknown('feedback never shown');
    return { id, on: program.shown.get(id) ?? null, text: inner(f) };
  });
  const correct = kid(declaration, 'correctResponse');
  const right = correct ? kids(correct, 'value').map(text) : [];
  const marking = { declaration, right, program };
  const known = choice
    ? choiceOf(choice, marking)
    : interaction.localName === 'textEntryInteraction'
      ? entryOf(marking)
      : essayOf(interaction, marking);
  const normal = score && attr(score, 'normalMaximum');
  if (known.highest === 0 && program.steps.length > 0) throw new Unknown('marks worth nothing');
  const points = known.highest === 0 && normal ? numberIn(normal) : known.highest;
  return { points, answer: known.answer, feedback };
}

interface Marks {
  readonly declaration: Element;
  readonly right: readonly string[];
  readonly program: Program;
}
interface Known {
  readonly answer: Marked['answer'];
  readonly highest: number;
}

function choiceOf(choice: ReadChoice, { declaration, right, program }: Marks): Known {
  const multiple = attr(declaration, 'cardinality') === 'multiple';
  if (!multiple && attr(declaration, 'cardinality') !== 'single') throw new Unknown('an order');
  const of = (marking: Marking, highest: number): Known => ({
    answer: { kind: 'choice', ...choice, marking },
    highest,
  });
  const { steps, least, most, mapped, matched } = program;
  if (mapped && steps.length === 0) {
    const mapping = mappingOf(declaration);
    const worth = Object.fromEntries(choice.choices.map((c) => [c.id, mapping.otherwise]));
    for (const e of mapping.entries) worth[e.key] = e.worth;
    return of(
      { by: 'each', worth, least: mapping.least, most: mapping.most },
      highestOf(worth, multiple, mapping.most),
    );
  }
  if (matched) return of({ by: 'all', right }, 1);
  const [only] = steps;
  if (!only) return of({ by: 'all', right: [] }, 0);
  if (steps.length === 1 && only.action === 'set') {
    const ids = choice.choices.map((c) => c.id);
    return of({ by: 'all', right: rightIn(only.test, multiple, right, ids) }, only.worth);
  }
  const worth: Record<string, number> = {};
  for (const s of steps) {
    const id = choiceIn(s.test);
    if (worth[id] !== undefined || (multiple && s.action === 'set')) throw new Unknown('rules');
    worth[id] = s.worth;
  }
  return of({ by: 'each', worth, least, most }, highestOf(worth, multiple, most));
}

function highestOf(worth: Readonly<Record<string, number>>, multiple: boolean, most: number | null): number {
  const all = Object.values(worth).map((w) => Math.max(0, w));
  const sum = multiple ? all.reduce((a, b) => a + b, 0) : Math.max(0, ...all);
  return Math.min(most ?? Infinity, Number(sum.toPrecision(12)));
}

function rightIn(
  test: Element,
  multiple: boolean,
  right: readonly string[],
  ids: readonly string[],
): readonly string[] {
  if (test.localName === 'match' && kids(test).some((k) => k.localName === 'correct')) return right;
  if (!multiple) return [choiceIn(test)];
  const parts = test.localName === 'and' ? kids(test) : [test];
  const wrong = parts
    .filter((p) => p.localName === 'not')
    .flatMap((n) => kids(n))
    .flatMap((k) => (k.localName === 'or' ? kids(k) : [k]))
    .map(choiceIn);
  const taken = parts.filter((p) => p.localName !== 'not').map(choiceIn);
  if (new Set([...taken, ...wrong]).size !== ids.length) throw new Unknown('not every choice is spoken of');
  return taken;
}

interface Mapping {
  readonly entries: readonly {
    readonly key: string;
    readonly worth: number;
    readonly caseSensitive: boolean;
  }[];
  readonly otherwise: number;
  readonly least: number | null;
  readonly most: number | null;
}

function mappingOf(declaration: Element): Mapping {
  const mapping = kid(declaration, 'mapping');
  if (!mapping) throw new Unknown('no mapping');
  const bound = (name: string): number | null => {
    const said = attr(mapping, name);
    return said === null ? null : numberIn(said);
  };
  return {
    entries: kids(mapping, 'mapEntry').map((e) => ({
      key: attr(e, 'mapKey') ?? '',
      worth: numberIn(attr(e, 'mappedValue')),
      // Case matters where nothing is said (QTI 2.1 Information Model, "mapEntry").
      caseSensitive: attr(e, 'caseSensitive') !== 'false',
    })),
    otherwise: bound('defaultValue') ?? 0,
    least: bound('lowerBound'),
    most: bound('upperBound'),
  };
}

function entryOf({ declaration, right, program }: Marks): Known {
  const numeric = ['float', 'integer'].includes(attr(declaration, 'baseType') ?? '');
  const { steps, mapped, matched } = program;
  if (mapped && steps.length === 0 && !numeric) {
    const { entries, otherwise, least, most } = mappingOf(declaration);
    if (otherwise !== 0 || least !== null || most !== null) throw new Unknown('a mapping with bounds');
    const accepted = entries.map(({ key, ...e }): Accepted => ({ text: key, ...e }));
    return textsKnown(accepted);
  }
  if (matched || steps.length === 0 || steps.some((s) => s.action !== 'set')) throw new Unknown('rules');
  if (!numeric) return textsKnown(steps.flatMap((s) => textsOf(s.test, s.worth, right)));
  const accepted = steps.map((s) => numbersOf(s.test, s.worth, right));
  return { answer: { kind: 'number', accepted }, highest: Math.max(...accepted.map((a) => a.worth)) };
}

const textsKnown = (accepted: readonly Accepted[]): Known => ({
  answer: { kind: 'text', accepted },
  highest: Math.max(0, ...accepted.map((a) => a.worth)),
});

function textsOf(test: Element, worth: number, right: readonly string[]): Accepted[] {
  if (test.localName === 'or') return kids(test).flatMap((t) => textsOf(t, worth, right));
  if (test.localName !== 'stringMatch' && test.localName !== 'match') throw new Unknown(test.localName ?? '');
  const said = kids(test).find((k) => k.localName === 'baseValue');
  const correct = kids(test).some((k) => k.localName === 'correct');
  if (!said && !(correct && right.length === 1)) throw new Unknown('another text');
  const caseSensitive = test.localName === 'match' || attr(test, 'caseSensitive') === 'true';
  return [{ text: said ? text(said) : right[0]!, caseSensitive, worth }];
}

/** One number, a number with a tolerance, a range, or a number and the range around it. */
function numbersOf(test: Element, worth: number, right: readonly string[]): AcceptedNumber {
  const limit = (of: Element): number => {
    const value = kids(of).find((k) => k.localName === 'baseValue');
    if (!value) throw new Unknown('another limit');
    return numberIn(text(value));
  };
  if (test.localName === 'or') {
    const [first, second, ...more] = kids(test);
    if (!first || !second || more.length > 0) throw new Unknown('several ranges');
    const around = numbersOf(second, worth, []);
    const { exact } = numbersOf(first, worth, []);
    if (exact === null || exact < around.low || exact > around.high)
      throw new Unknown('a number beside its range');
    return { ...around, exact };
  }
  const exactly = right.length === 1 ? numberIn(right[0]!) : null;
  if (test.localName === 'equal') {
    const correct = kids(test).some((k) => k.localName === 'correct');
    if (correct && exactly === null) throw new Unknown('no correct response');
    const exact = correct ? exactly! : limit(test);
    const mode = attr(test, 'toleranceMode') ?? 'exact';
    if (mode === 'relative') throw new Unknown('a relative tolerance');
    const said = mode === 'absolute' ? (attr(test, 'tolerance') ?? '0').trim().split(/\s+/u) : ['0'];
    const [t0, t1] = [numberIn(said[0]!), numberIn(said[1] ?? said[0]!)];
    const includes = [
      attr(test, 'includeLowerBound') !== 'false',
      attr(test, 'includeUpperBound') !== 'false',
    ];
    // The range is that of the first expression (QTI 2.1 Information Model, "equal"): the other way round
    // where the response stands first.
    const first = kids(test)[0]?.localName === 'variable';
    const [below, above] = first ? [t1, t0] : [t0, t1];
    const [includesLow, includesHigh] = first ? [includes[1]!, includes[0]!] : [includes[0]!, includes[1]!];
    return { exact, low: exact - below, high: exact + above, includesLow, includesHigh, worth };
  }
  if (test.localName !== 'and' || kids(test).length !== 2) throw new Unknown(test.localName ?? '');
  const one = (...names: readonly string[]): Element => {
    const found = kids(test).find((k) => names.includes(k.localName ?? ''));
    if (!found) throw new Unknown('no range');
    return found;
  };
  const [low, high] = [one('gte', 'gt'), one('lte', 'lt')];
  return {
    exact: exactly,
    low: limit(low),
    high: limit(high),
    includesLow: low.localName === 'gte',
    includesHigh: high.localName === 'lte',
    worth,
  };
}

function essayOf(interaction: Element, { program }: Marks): Known {
  if (interaction.localName !== 'extendedTextInteraction') throw new Unknown(interaction.localName ?? '');
  if (kids(interaction).length > 0) throw new Unknown('a prompt');
  if (program.steps.length > 0 || program.mapped || program.matched) throw new Unknown('rules for an essay');
  if (attr(interaction, 'format') !== null && attr(interaction, 'format') !== 'plain')
    throw new Unknown('a format');
  return { answer: { kind: 'essay' }, highest: 0 };
}
