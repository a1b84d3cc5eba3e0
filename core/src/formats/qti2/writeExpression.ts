import type { Expr, Program, Rule } from '../../model/scoring.ts';
import { block, escapeText, tag } from '../../xml/write.ts';
import { TEMPLATE_BASE } from './names.ts';
import { formatScalar } from './values.ts';

/** responseProcessing of a program; a standard template is named instead of spelled out. */
export function writeProcessing(program: Program): string {
  if (program.template) return tag('responseProcessing', { template: TEMPLATE_BASE + program.template });
  return program.rules.length === 0 ? '' : block('responseProcessing', {}, program.rules.map(writeRule));
}

function writeRule(rule: Rule): string {
  switch (rule.do) {
    case 'exit':
      return tag('exitResponse');
    case 'set':
      return block('setOutcomeValue', { identifier: rule.id }, [writeExpr(rule.value)]);
    case 'lookup':
      return block('lookupOutcomeValue', { identifier: rule.id }, [writeExpr(rule.value)]);
    case 'if': {
      const branches = rule.branches.map((b, at) =>
        block(at === 0 ? 'responseIf' : 'responseElseIf', {}, [writeExpr(b.when), ...b.then.map(writeRule)]),
      );
      const otherwise =
        rule.otherwise.length > 0 ? [block('responseElse', {}, rule.otherwise.map(writeRule))] : [];
      return block('responseCondition', {}, [...branches, ...otherwise]);
    }
  }
}

export function writeExpr(expr: Expr): string {
  switch (expr.op) {
    case 'null':
      return tag('null');
    case 'baseValue':
      return tag('baseValue', { baseType: expr.baseType }, escapeText(formatScalar(expr.value)));
    case 'variable':
    case 'correct':
    case 'default':
    case 'mapResponse':
    case 'mapResponsePoint':
      return tag(expr.op, { identifier: expr.id });
    case 'call':
      return block(expr.name, expr.attrs ?? {}, expr.args.map(writeExpr));
  }
}
