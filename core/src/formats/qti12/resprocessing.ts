// <respcondition continue="No"><conditionvar><varequal respident="r">A</varequal></conditionvar><setvar
// action="Set">100</setvar></respcondition>
import { parseNumber } from '../../model/number.ts';
import { cutList, NONE } from '../../model/lists.ts';
import { call, number, set, value, variable } from '../../model/make.ts';
import type { Expr, OutcomeDeclaration, Program, ResponseDeclaration, Rule } from '../../model/scoring.ts';
import { outcome } from '../../model/make.ts';
import { attrOf } from '../../xml/attrs.ts';
import { child, elements, textOf, type XmlElement } from '../../xml/tree.ts';
import { readCondition } from './conditionvar.ts';

export const FEEDBACK_OUTCOME = 'FEEDBACK';
/** Conditions nested by alternating continue="No" and "Yes" beyond this are not translated. */
const MAX_NESTING = 100;

export interface Processing {
  readonly program: Program;
  readonly outcomes: readonly OutcomeDeclaration[];
  readonly scoreOutcome: string;
}

/**
 * Translates QTI 1.2 response processing into the expression language (ASI Information Model 1.2,
 * "resprocessing").
 */
export function readProcessing(
  item: XmlElement,
  responses: readonly ResponseDeclaration[],
  blanks: ReadonlyMap<string, readonly string[]> = new Map(),
): Processing {
  const blocks = elements(item, 'resprocessing');
  const untranslated: string[] = [];
  const declared = new Map<string, XmlElement>();
  for (const block of blocks) {
    const holder = child(block, 'outcomes');
    for (const decvar of holder ? elements(holder, 'decvar') : [])
      declared.set(attrOf(decvar, 'varname') || 'SCORE', decvar);
  }
  const byId = new Map(responses.map((r) => [r.id, r]));
  const rules: Rule[] = [];
  for (const block of blocks) {
    const conditions = elements(block, 'respcondition').map((element) =>
      readRespcondition(element, byId, blanks, untranslated),
    );
    for (const rule of chain(conditions, untranslated)) rules.push(rule);
  }
  const set = targets(rules);
  const scoreOutcome = chooseScore(declared, set);
  const clamp = clampRule(declared.get(scoreOutcome), scoreOutcome, rules);
  if (clamp) rules.push(clamp);
  const outcomes = [...new Set([scoreOutcome, ...declared.keys(), ...set])].map((id) =>
    declare(id, declared.get(id)),
  );
  return { program: { rules: cutList(rules), untranslated: cutList(untranslated) }, outcomes, scoreOutcome };
}

interface Condition {
  readonly when: Expr;
  readonly then: readonly Rule[];
  readonly goesOn: boolean;
}

function readRespcondition(
  element: XmlElement,
  responses: ReadonlyMap<string, ResponseDeclaration>,
  blanks: ReadonlyMap<string, readonly string[]>,
  untranslated: string[],
): Condition {
  const holder = child(element, 'conditionvar');
  const then: Rule[] = [];
  for (const action of elements(element)) {
    if (action.name === 'setvar') {
      const rule = readSetvar(action);
      if (rule) then.push(rule);
      else untranslated.push(`setvar ${textOf(action).trim()}`);
    } else if (action.name === 'displayfeedback') {
      const id = value('identifier', attrOf(action, 'linkrefid'));
      then.push(set(FEEDBACK_OUTCOME, call('multiple', [variable(FEEDBACK_OUTCOME), id])));
    } else if (action.name === 'respcond_extension') untranslated.push(action.name);
  }
  return {
    when: holder ? readCondition(holder, responses, blanks, untranslated) : value('boolean', true),
    then: cutList(then),
    goesOn: attrOf(element, 'continue').toLowerCase() === 'yes',
  };
}

function readSetvar(element: XmlElement): Rule | null {
  const id = attrOf(element, 'varname') || 'SCORE';
  const amount = parseNumber(textOf(element));
  if (amount === null) return null;
  const now = variable(id);
  switch (attrOf(element, 'action').toLowerCase() || 'set') {
    case 'set':
      return set(id, number(amount));
    case 'add':
      return set(id, call('sum', [now, number(amount)]));
    case 'subtract':
      return set(id, call('subtract', [now, number(amount)]));
    case 'multiply':
      return set(id, call('product', [now, number(amount)]));
    case 'divide':
      return set(id, call('divide', [now, number(amount)]));
    default:
      return null;
  }
}

/**
 * continue="No" stops after a condition that is true: what follows is its else. Runs of "No" become
 * one if / else-if chain.
 */
function chain(conditions: readonly Condition[], untranslated: string[], depth = 0): Rule[] {
  if (depth > MAX_NESTING) {
    untranslated.push('respcondition nested too deep');
    return [];
  }
  const rules: Rule[] = [];
  for (let at = 0; at < conditions.length; at++) {
    const condition = conditions[at]!;
    if (condition.goesOn) {
      rules.push({ do: 'if', branches: [{ when: condition.when, then: condition.then }], otherwise: NONE });
      continue;
    }
    const branches: { when: Expr; then: readonly Rule[] }[] = [];
    while (at < conditions.length && !conditions[at]!.goesOn) {
      branches.push({ when: conditions[at]!.when, then: conditions[at]!.then });
      at += 1;
    }
    const otherwise = chain(conditions.slice(at), untranslated, depth + 1);
    rules.push({ do: 'if', branches: cutList(branches), otherwise: cutList(otherwise) });
    return rules;
  }
  return rules;
}

/** The ids that rules set, in order. */
function targets(rules: readonly Rule[], found = new Set<string>()): ReadonlySet<string> {
  for (const rule of rules) {
    if (rule.do === 'set') found.add(rule.id);
    else if (rule.do === 'if') {
      for (const branch of rule.branches) targets(branch.then, found);
      targets(rule.otherwise, found);
    }
  }
  return found;
}

/**
 * SCORE where it is declared or set; else the first declared number that the rules set; else the first
 * declared.
 */
function chooseScore(declared: ReadonlyMap<string, XmlElement>, targeted: ReadonlySet<string>): string {
  const set = [...targeted].filter((id) => id !== FEEDBACK_OUTCOME);
  const names = [...declared.keys()];
  return (
    names.find((id) => id.toUpperCase() === 'SCORE' && (set.length === 0 || set.includes(id))) ??
    set.find((id) => id.toUpperCase() === 'SCORE') ??
    names.find((id) => set.includes(id)) ??
    set[0] ??
    names[0] ??
    'SCORE'
  );
}

function declare(id: string, decvar: XmlElement | undefined): OutcomeDeclaration {
  if (id === FEEDBACK_OUTCOME && !decvar) {
    return outcome(id, { cardinality: 'multiple', baseType: 'identifier', defaultValue: NONE });
  }
  return outcome(id, {
    defaultValue: [parseNumber(decvar?.attrs['defaultval']) ?? 0],
    normalMaximum: parseNumber(decvar?.attrs['maxvalue']),
    normalMinimum: parseNumber(decvar?.attrs['minvalue']),
  });
}

/** Bounds are applied once, when processing ends; left out where no rule can pass them. */
function clampRule(decvar: XmlElement | undefined, id: string, rules: readonly Rule[]): Rule | null {
  const low = parseNumber(decvar?.attrs['minvalue']);
  const high = parseNumber(decvar?.attrs['maxvalue']);
  const start = parseNumber(decvar?.attrs['defaultval']) ?? 0;
  const inside = (v: number): boolean => (low === null || v >= low) && (high === null || v <= high);
  const canPass = (list: readonly Rule[]): boolean =>
    list.some((rule) => {
      if (rule.do === 'if') return rule.branches.some((b) => canPass(b.then)) || canPass(rule.otherwise);
      if (rule.do !== 'set' || rule.id !== id) return false;
      return !(rule.value.op === 'baseValue' && inside(Number(rule.value.value)));
    });
  if ((low === null && high === null) || (inside(start) && !canPass(rules))) return null;
  let bounded: Expr = variable(id);
  if (low !== null) bounded = call('max', [bounded, number(low)]);
  if (high !== null) bounded = call('min', [bounded, number(high)]);
  return set(id, bounded);
}
