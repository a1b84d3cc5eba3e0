import type { Item } from '../model/holding.ts';
import type { BaseType, Cardinality, Expr, Operator, Rule } from '../model/scoring.ts';

/** What is known of an expression's type; null where anything goes. */
interface Type {
  readonly base: BaseType | 'number' | null;
  readonly cardinality: Cardinality | null;
}

type Want = 'boolean' | 'number' | 'text' | 'point' | 'duration' | 'any' | 'container';

/**
 * Operand types and result of each operator (QTI 2.1 Information Model, "Expressions"); the last want holds
 * for the rest.
 */
const SIGNATURES: Readonly<
  Partial<Record<Operator, { wants: readonly Want[]; gives: Type['base']; least: number; most: number }>>
> = {
  and: { wants: ['boolean'], gives: 'boolean', least: 1, most: Infinity },
  or: { wants: ['boolean'], gives: 'boolean', least: 1, most: Infinity },
  anyN: { wants: ['boolean'], gives: 'boolean', least: 1, most: Infinity },
  not: { wants: ['boolean'], gives: 'boolean', least: 1, most: 1 },
  isNull: { wants: ['any'], gives: 'boolean', least: 1, most: 1 },
  match: { wants: ['any'], gives: 'boolean', least: 2, most: 2 },
  member: { wants: ['any', 'container'], gives: 'boolean', least: 2, most: 2 },
  contains: { wants: ['container'], gives: 'boolean', least: 2, most: 2 },
  stringMatch: { wants: ['text'], gives: 'boolean', least: 2, most: 2 },
  substring: { wants: ['text'], gives: 'boolean', least: 2, most: 2 },
  patternMatch: { wants: ['text'], gives: 'boolean', least: 1, most: 1 },
  equal: { wants: ['number'], gives: 'boolean', least: 2, most: 2 },
  equalRounded: { wants: ['number'], gives: 'boolean', least: 2, most: 2 },
  lt: { wants: ['number'], gives: 'boolean', least: 2, most: 2 },
  gt: { wants: ['number'], gives: 'boolean', least: 2, most: 2 },
  lte: { wants: ['number'], gives: 'boolean', least: 2, most: 2 },
  gte: { wants: ['number'], gives: 'boolean', least: 2, most: 2 },
  durationLT: { wants: ['duration'], gives: 'boolean', least: 2, most: 2 },
  durationGTE: { wants: ['duration'], gives: 'boolean', least: 2, most: 2 },
  inside: { wants: ['point'], gives: 'boolean', least: 1, most: 1 },
  sum: { wants: ['number'], gives: 'number', least: 1, most: Infinity },
  product: { wants: ['number'], gives: 'number', least: 1, most: Infinity },
  max: { wants: ['number'], gives: 'number', least: 1, most: Infinity },
  min: { wants: ['number'], gives: 'number', least: 1, most: Infinity },
  gcd: { wants: ['number'], gives: 'number', least: 1, most: Infinity },
  lcm: { wants: ['number'], gives: 'number', least: 1, most: Infinity },
  subtract: { wants: ['number'], gives: 'number', least: 2, most: 2 },
  divide: { wants: ['number'], gives: 'number', least: 2, most: 2 },
  power: { wants: ['number'], gives: 'number', least: 2, most: 2 },
  integerDivide: { wants: ['number'], gives: 'number', least: 2, most: 2 },
  integerModulus: { wants: ['number'], gives: 'number', least: 2, most: 2 },
  truncate: { wants: ['number'], gives: 'number', least: 1, most: 1 },
  round: { wants: ['number'], gives: 'number', least: 1, most: 1 },
  roundTo: { wants: ['number'], gives: 'number', least: 1, most: 1 },
  integerToFloat: { wants: ['number'], gives: 'number', least: 1, most: 1 },
  containerSize: { wants: ['any'], gives: 'number', least: 1, most: 1 },
};

const NUMBERS: ReadonlySet<string> = new Set(['integer', 'float', 'number', 'duration']);
const TEXTS: ReadonlySet<string> = new Set(['string', 'identifier', 'uri', 'intOrIdentifier', 'file']);

/**
 * What a program gets wrong about types: operands of the wrong kind or number, and mappings that are not
 * declared.
 */
export function typeErrors(item: Item): string[] {
  const found = new Set<string>();
  const rules = [...item.templateRules, ...item.scoring.rules];
  const visitRule = (rule: Rule): void => {
    if (rule.do === 'exit') return;
    if (rule.do !== 'if') {
      typeOf(rule.value);
      return;
    }
    for (const branch of rule.branches) {
      const { base } = typeOf(branch.when);
      if (base !== null && base !== 'boolean') found.add(`a condition that is ${base}, not true or false`);
      branch.then.forEach(visitRule);
    }
    rule.otherwise.forEach(visitRule);
  };
  const typeOf = (expr: Expr): Type => {
    switch (expr.op) {
      case 'baseValue':
        return { base: expr.baseType, cardinality: 'single' };
      case 'null':
        return { base: null, cardinality: null };
      case 'variable':
      case 'correct':
      case 'default': {
        const declared = [...item.responses, ...item.outcomes, ...item.templates].find(
          (d) => d.id === expr.id,
        );
        return { base: declared?.baseType ?? null, cardinality: declared?.cardinality ?? null };
      }
      case 'mapResponse':
      case 'mapResponsePoint': {
        const response = item.responses.find((r) => r.id === expr.id);
        const mapping = expr.op === 'mapResponse' ? response?.mapping : response?.areaMapping;
        if (!mapping) found.add(`${expr.op} of ${expr.id}, which has no mapping`);
        return { base: 'number', cardinality: 'single' };
      }
      case 'call':
        return typeOfCall(expr);
    }
  };
  const typeOfCall = (expr: Extract<Expr, { op: 'call' }>): Type => {
    const args = expr.args.map(typeOf);
    const signature = SIGNATURES[expr.name];
    if (!signature) {
      if (expr.name === 'multiple' || expr.name === 'ordered')
        return { base: args.find((a) => a.base !== null)?.base ?? null, cardinality: expr.name };
      return { base: null, cardinality: null };
    }
    if (args.length < signature.least || args.length > signature.most)
      found.add(`${expr.name} with ${args.length} operands`);
    args.forEach((arg, at) => {
      const want = signature.wants[Math.min(at, signature.wants.length - 1)]!;
      if (!fits(arg, want)) found.add(`${expr.name} of ${said(arg)}`);
    });
    if (expr.name === 'match' && args[0] && args[1] && clash(args[0], args[1]))
      found.add(`match of ${said(args[0])} with ${said(args[1])}`);
    return { base: signature.gives, cardinality: 'single' };
  };
  rules.forEach(visitRule);
  return [...found];
}

const said = ({ base, cardinality }: Type): string =>
  [cardinality === 'single' ? '' : cardinality, base].filter(Boolean).join(' ') || 'anything';

function fits({ base, cardinality }: Type, want: Want): boolean {
  switch (want) {
    case 'any':
      return true;
    case 'container':
      return cardinality === null || cardinality !== 'single';
    case 'number':
      return base === null || NUMBERS.has(base);
    case 'duration':
      return base === null || NUMBERS.has(base);
    case 'text':
      return base === null || TEXTS.has(base);
    default:
      return base === null || base === want;
  }
}

function clash(a: Type, b: Type): boolean {
  if (a.cardinality !== null && b.cardinality !== null && a.cardinality !== b.cardinality) return true;
  if (a.base === null || b.base === null || a.base === b.base) return false;
  if (NUMBERS.has(a.base) && NUMBERS.has(b.base)) return false;
  return !(TEXTS.has(a.base) && TEXTS.has(b.base));
}
