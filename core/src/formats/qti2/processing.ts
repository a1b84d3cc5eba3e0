// <responseProcessing><responseCondition><responseIf><match/><setOutcomeValue/></responseIf></responseConditi
// on></responseProcessing>
import { call, number, set, value, variable } from '../../model/make.ts';
import {
  OPERATORS,
  type Expr,
  type Operator,
  type Program,
  type ResponseDeclaration,
  type Rule,
} from '../../model/scoring.ts';
import { attrOf } from '../../xml/attrs.ts';
import { elements, textOf, type XmlElement } from '../../xml/tree.ts';
import { baseTypeOf } from './declarations.ts';
import { parseScalar } from './values.ts';

type TemplateName = NonNullable<Program['template']>;
const TEMPLATES: ReadonlySet<string> = new Set<TemplateName>([
  'match_correct',
  'map_response',
  'map_response_point',
]);
const KNOWN_OPERATORS: ReadonlySet<string> = new Set(OPERATORS);
const LEAVES: ReadonlySet<string> = new Set(['correct', 'default', 'mapResponse', 'mapResponsePoint']);

/**
 * Reads responseProcessing: rules, a standard template by its last segment, or a private template.
 * @param privateTemplate the root of a template that the package ships, by its address; null if it has none
 */
export function readResponseProcessing(
  element: XmlElement | null,
  responses: readonly ResponseDeclaration[],
  privateTemplate: (address: string) => XmlElement | null = () => null,
): { program: Program; unknownTemplate: string | null } {
  if (!element) return { program: { rules: [], untranslated: [] }, unknownTemplate: null };
  const untranslated: string[] = [];
  const rules = readRules(element, untranslated);
  const address = attrOf(element, 'template') || attrOf(element, 'templateLocation');
  if (rules.length > 0 || address === '') return { program: { rules, untranslated }, unknownTemplate: null };
  const name = (address.split('/').pop() ?? '').replace(/\.xml$/u, '').replace(/^CC2_/u, '');
  const own = TEMPLATES.has(name)
    ? null
    : (privateTemplate(attrOf(element, 'templateLocation')) ?? privateTemplate(address));
  if (own) return { program: { rules: readRules(own, untranslated), untranslated }, unknownTemplate: null };
  if (!TEMPLATES.has(name)) {
    return { program: { rules: [], untranslated: [`template ${address}`] }, unknownTemplate: address };
  }
  const id = responses.some((r) => r.id === 'RESPONSE') ? 'RESPONSE' : (responses[0]?.id ?? 'RESPONSE');
  return { program: templateProgram(name as TemplateName, id), unknownTemplate: null };
}

/**
 * The rules a standard template stands for (QTI 2.1 Information Model, "Standard Response Processing
 * Templates").
 */
export function templateProgram(template: TemplateName, responseId: string): Program {
  const answer = variable(responseId);
  const correct = call('match', [answer, { op: 'correct', id: responseId }]);
  const isNull = call('isNull', [answer]);
  const mapped: Expr = {
    op: template === 'map_response_point' ? 'mapResponsePoint' : 'mapResponse',
    id: responseId,
  };
  const rule: Rule =
    template === 'match_correct'
      ? {
          do: 'if',
          branches: [{ when: correct, then: [set('SCORE', number(1))] }],
          otherwise: [set('SCORE', number(0))],
        }
      : {
          do: 'if',
          branches: [{ when: isNull, then: [set('SCORE', number(0))] }],
          otherwise: [set('SCORE', mapped)],
        };
  return { template, rules: [rule], untranslated: [] };
}

/** Rules of response, template and outcome processing; what is unknown is named in `untranslated`. */
export function readRules(parent: XmlElement, untranslated: string[]): Rule[] {
  return elements(parent).flatMap((element) => readRule(element, untranslated));
}

function readRule(element: XmlElement, untranslated: string[]): Rule[] {
  const id = attrOf(element, 'identifier');
  const given = (): Expr => {
    const [first] = elements(element);
    return first ? readExpression(first, untranslated) : { op: 'null' };
  };
  switch (element.name) {
    case 'responseCondition':
    case 'outcomeCondition':
    case 'templateCondition': {
      const parts = elements(element);
      const branches = parts.filter((p) => /If$/u.test(p.name)).map((p) => readBranch(p, untranslated));
      const otherwise = parts.find((p) => /Else$/u.test(p.name));
      return [{ do: 'if', branches, otherwise: otherwise ? readRules(otherwise, untranslated) : [] }];
    }
    case 'setOutcomeValue':
    case 'setTemplateValue':
    case 'setValue':
      return [set(id, given())];
    case 'lookupOutcomeValue':
      return [{ do: 'lookup', id, value: given() }];
    case 'setCorrectResponse':
      return [{ do: 'setCorrect', id, value: given() }];
    case 'setDefaultValue':
      return [{ do: 'setDefault', id, value: given() }];
    case 'templateConstraint':
      return [{ do: 'constraint', value: given() }];
    case 'exitResponse':
    case 'exitTest':
    case 'exitTemplate':
      return [{ do: 'exit' }];
    case 'responseProcessingFragment':
    case 'outcomeProcessingFragment':
      return readRules(element, untranslated);
    default:
      untranslated.push(element.name);
      return [];
  }
}

function readBranch(element: XmlElement, untranslated: string[]): { when: Expr; then: readonly Rule[] } {
  const [first, ...rest] = elements(element);
  return {
    when: first ? readExpression(first, untranslated) : value('boolean', false),
    then: rest.flatMap((e) => readRule(e, untranslated)),
  };
}

/** Reads one expression; what is unknown becomes NULL and is named in `untranslated`. */
export function readExpression(element: XmlElement, untranslated: string[]): Expr {
  const { name } = element;
  if (name === 'variable') {
    const weight = attrOf(element, 'weightIdentifier');
    return {
      op: 'variable',
      id: attrOf(element, 'identifier'),
      ...(weight ? { weight } : {}),
    };
  }
  if (LEAVES.has(name)) return { op: name as 'correct', id: attrOf(element, 'identifier') };
  if (name === 'null') return { op: 'null' };
  if (name === 'baseValue') {
    const baseType = baseTypeOf(element) ?? 'string';
    const parsed = parseScalar(textOf(element), baseType);
    return parsed === null ? { op: 'null' } : value(baseType, parsed);
  }
  if (!KNOWN_OPERATORS.has(name)) {
    untranslated.push(name);
    return { op: 'null' };
  }
  const args = elements(element).map((e) => readExpression(e, untranslated));
  const attrs: Record<string, string> = {};
  for (const [key, v] of Object.entries(element.attrs)) if (!key.startsWith('xmlns')) attrs[key] = v;
  return call(name as Operator, args, Object.keys(attrs).length > 0 ? attrs : undefined);
}
