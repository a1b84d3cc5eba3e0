import { attr, kids, numberIn, text, Unknown, type Element } from './xml.ts';

/** Response processing of QTI 2.1 as steps that mark and feedback that is shown. */

/** One step that marks: what has to be so, and what is set to, added or taken off. */
export interface Step {
  readonly test: Element;
  readonly action: 'set' | 'add';
  readonly worth: number;
}
export interface Program {
  readonly steps: readonly Step[];
  /** Feedback by its identifier: the choice it is shown with, or null for always. */
  readonly shown: ReadonlyMap<string, string | null>;
  readonly least: number | null;
  readonly most: number | null;
  /** Whether the response's mapping gives the score. */
  readonly mapped: boolean;
  readonly matched: boolean;
}

const TEMPLATE = /\/(match_correct|map_response)(?:\.xml)?$/u;

/** @throws Unknown where it is processed in another way */
export function programOf(el: Element | null): Program {
  const steps: Step[] = [];
  const shown = new Map<string, string | null>();
  const program = {
    least: null as number | null,
    most: null as number | null,
    mapped: false,
    matched: false,
  };
  const template = el && attr(el, 'template');
  if (template) {
    const name = TEMPLATE.exec(template)?.[1];
    if (name === undefined) throw new Unknown('another template');
    program[name === 'match_correct' ? 'matched' : 'mapped'] = true;
    return { ...program, steps, shown };
  }
  for (const rule of el ? kids(el) : []) {
    if (rule.localName === 'setOutcomeValue') {
      const [value] = kids(rule);
      if (value?.localName === 'mapResponse') program.mapped = true;
      else if (value) Object.assign(program, boundsOf(value));
      continue;
    }
    if (rule.localName !== 'responseCondition') throw new Unknown(rule.localName ?? '');
    for (const branch of kids(rule)) {
      const [test, ...actions] = kids(branch);
      if (branch.localName === 'responseElse') {
        if (setsTo(test) !== 0) throw new Unknown('a mark for anything else');
        continue;
      }
      if (!test || actions.length !== 1) throw new Unknown('several at once');
      const [action] = actions as [Element];
      if (attr(action, 'identifier') === 'FEEDBACK') {
        const named = kids(kids(action)[0]!).filter((v) => v.localName === 'baseValue');
        const id = text(named[0] ?? kids(action)[0]!);
        if (shown.has(id) || kids(rule).length > 1) throw new Unknown('shown twice');
        shown.set(id, isTrue(test) ? null : choiceIn(test));
      } else steps.push(stepOf(test, action));
    }
  }
  return { ...program, steps, shown };
}

const isTrue = (test: Element): boolean =>
  test.localName === 'baseValue' && attr(test, 'baseType') === 'boolean' && text(test) === 'true';

/** The number that a rule sets the score to; null where it does something else. */
function setsTo(rule: Element | undefined): number | null {
  if (!rule || rule.localName !== 'setOutcomeValue' || attr(rule, 'identifier') !== 'SCORE') return null;
  const [value] = kids(rule);
  return value?.localName === 'baseValue' ? numberIn(text(value)) : null;
}

function stepOf(test: Element, action: Element): Step {
  if (attr(action, 'identifier') !== 'SCORE') throw new Unknown('another outcome');
  const worth = setsTo(action);
  if (worth !== null) return { test, action: 'set', worth };
  const [sum] = kids(action);
  const [variable, amount] = sum ? kids(sum) : [];
  if (
    !sum ||
    !['sum', 'subtract'].includes(sum.localName ?? '') ||
    variable?.localName !== 'variable' ||
    amount?.localName !== 'baseValue'
  )
    throw new Unknown('another sum');
  return { test, action: 'add', worth: numberIn(text(amount)) * (sum.localName === 'sum' ? 1 : -1) };
}

/** `min(max(SCORE, least), most)`, either alone, or nothing but the score. */
function boundsOf(value: Element): { least?: number; most?: number } {
  if (value.localName === 'variable') return {};
  if (value.localName !== 'min' && value.localName !== 'max') throw new Unknown(value.localName ?? '');
  const [inside, limit] = kids(value);
  if (!inside || limit?.localName !== 'baseValue') throw new Unknown('another limit');
  const own = numberIn(text(limit));
  return { ...boundsOf(inside), ...(value.localName === 'min' ? { most: own } : { least: own }) };
}

/** The one choice that a test asks for. */
export function choiceIn(test: Element): string {
  const parts = kids(test);
  const value = parts.find((p) => p.localName === 'baseValue');
  const variable = parts.find((p) => p.localName === 'variable');
  if (!['member', 'match'].includes(test.localName ?? '') || parts.length !== 2 || !value || !variable)
    throw new Unknown(test.localName ?? '');
  return text(value).trim();
}
