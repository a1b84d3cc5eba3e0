import type { Expr, Program, Rule } from '../../model/scoring.ts';
import { escapeText } from '../../xml/write.ts';
import type { Markup } from './markup.ts';
import { formatScalar } from './values.ts';

/** What a list of rules stands in: the names of its conditions and of what they set follow. */
type Place = 'response' | 'outcome' | 'template';

/** responseProcessing of a program; a standard template is named instead of spelled out. */
export function writeProcessing(program: Program, markup: Markup): string {
  if (program.template)
    return markup.tag('responseProcessing', {
      template: markup.dialect.templates + program.template + (markup.dialect.hyphenated ? '.xml' : ''),
    });
  return program.rules.length === 0
    ? ''
    : markup.block('responseProcessing', {}, writeRules(program.rules, 'response', markup));
}

export const writeRules = (rules: readonly Rule[], place: Place, markup: Markup): string[] =>
  rules.map((rule) => writeRule(rule, place, markup));

function writeRule(rule: Rule, place: Place, markup: Markup): string {
  const { block, tag } = markup;
  const set = (name: string, id: string, value: Expr): string =>
    block(name, { identifier: id }, [writeExpr(value, markup)]);
  switch (rule.do) {
    case 'exit':
      return tag(place === 'outcome' ? 'exitTest' : place === 'template' ? 'exitTemplate' : 'exitResponse');
    case 'set':
      return set(place === 'template' ? 'setTemplateValue' : 'setOutcomeValue', rule.id, rule.value);
    case 'lookup':
      return set('lookupOutcomeValue', rule.id, rule.value);
    case 'setCorrect':
      return set('setCorrectResponse', rule.id, rule.value);
    case 'setDefault':
      return set('setDefaultValue', rule.id, rule.value);
    case 'constraint':
      return block('templateConstraint', {}, [writeExpr(rule.value, markup)]);
    case 'if': {
      const branches = rule.branches.map((b, at) =>
        block(at === 0 ? `${place}If` : `${place}ElseIf`, {}, [
          writeExpr(b.when, markup),
          ...writeRules(b.then, place, markup),
        ]),
      );
      const otherwise =
        rule.otherwise.length > 0
          ? [block(`${place}Else`, {}, writeRules(rule.otherwise, place, markup))]
          : [];
      return block(`${place}Condition`, {}, [...branches, ...otherwise]);
    }
  }
}

export function writeExpr(expr: Expr, markup: Markup): string {
  switch (expr.op) {
    case 'null':
      return markup.tag('null');
    case 'baseValue':
      return markup.tag('baseValue', { baseType: expr.baseType }, escapeText(formatScalar(expr.value)));
    case 'variable':
      return markup.tag('variable', { identifier: expr.id, weightIdentifier: expr.weight ?? null });
    case 'correct':
    case 'default':
    case 'mapResponse':
    case 'mapResponsePoint':
      return markup.tag(expr.op, { identifier: expr.id });
    case 'call':
      return markup.block(
        expr.name,
        expr.attrs ?? {},
        expr.args.map((a) => writeExpr(a, markup)),
      );
  }
}
