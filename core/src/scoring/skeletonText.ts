import { NO_ATTRIBUTES } from '../model/lists.ts';
import type {
  Expr,
  Mapping,
  OutcomeDeclaration,
  ResponseDeclaration,
  Rule,
  Scalar,
} from '../model/scoring.ts';
import type { Interaction } from '../model/content.ts';
import { interactionsOf } from '../model/visit.ts';
import type { Recognisable } from './run.ts';

/**
 * All that a skeleton says, as one text: two are equal where their texts are. JSON would do, and takes as long as
 * what is saved. Texts stand behind their lengths, so that none runs into what follows.
 */
export function skeletonText(skeleton: Recognisable): string {
  const { standard, scale, scoreOutcome, scoring } = skeleton;
  let out = `${standard} ${scale} ${text(scoreOutcome)}${scoring.template ?? ''}`;
  for (const i of interactionsOf(skeleton)) out += interaction(i);
  for (const r of skeleton.responses) out += response(r);
  for (const o of skeleton.outcomes) out += outcome(o);
  return out + rules(scoring.rules);
}

const text = (of: string): string => `${of.length}:${of}`;
const scalar = (of: Scalar): string => (typeof of === 'string' ? text(of) : `${of} `);
const scalars = (all: readonly Scalar[]): string => {
  let out = `[${all.length} `;
  for (const one of all) out += scalar(one);
  return out;
};

function interaction(of: Interaction): string {
  if (of.kind !== 'choice' && of.kind !== 'order' && of.kind !== 'inlineChoice')
    throw new Error(`no skeleton has a ${of.kind}`);
  let out = `${of.kind} ${text(of.responseId)}[${of.choices.length} `;
  if (of.kind !== 'inlineChoice') out += `${of.minChoices} ${of.maxChoices} `;
  for (const { id } of of.choices) out += text(id);
  return out;
}

const response = ({ id, cardinality, baseType, correct, mapping }: ResponseDeclaration): string =>
  `@${text(id)}${cardinality} ${baseType} ${scalars(correct)}${mapping ? map(mapping) : '-'}`;

function map({ lowerBound, upperBound, defaultValue, entries }: Mapping): string {
  let out = `m${lowerBound} ${upperBound} ${defaultValue} [${entries.length} `;
  for (const e of entries) out += `${scalar(e.key)}${e.value} ${e.caseSensitive} `;
  return out;
}

function outcome(of: OutcomeDeclaration): string {
  const { id, cardinality, baseType, defaultValue, normalMaximum, normalMinimum, externalScored } = of;
  const begins = `$${text(id)}${cardinality} ${baseType} ${scalars(defaultValue)}`;
  return `${begins}${normalMaximum} ${normalMinimum} ${externalScored} `;
}

function rules(all: readonly Rule[]): string {
  let out = `{${all.length} `;
  for (const one of all) out += rule(one);
  return out;
}

function rule(of: Rule): string {
  if (of.do === 'exit') return 'exit ';
  if (of.do === 'set') return `set ${text(of.id)}${expression(of.value)}`;
  if (of.do !== 'if') throw new Error(`no skeleton has a rule to ${of.do}`);
  let out = `if ${of.branches.length} `;
  for (const b of of.branches) out += expression(b.when) + rules(b.then);
  return out + rules(of.otherwise);
}

function expression(of: Expr): string {
  switch (of.op) {
    case 'null':
      return 'null ';
    case 'baseValue':
      return `= ${of.baseType} ${scalar(of.value)}`;
    case 'call': {
      let out = `${of.name}(${of.args.length} `;
      for (const [name, value] of Object.entries(of.attrs ?? NO_ATTRIBUTES)) out += text(name) + text(value);
      out += ')';
      for (const arg of of.args) out += expression(arg);
      return out;
    }
    default:
      return `${of.op} ${text(of.id)}`;
  }
}
