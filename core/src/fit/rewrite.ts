import type { ContentNode } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import type { Expr, Rule, Scalar } from '../model/scoring.ts';

/** Systematic renaming through an item: content, responses, outcomes, feedback and program stay in step. */
export interface Renames {
  readonly response: (id: string) => string;
  readonly outcome: (id: string) => string;
  /** Choice and feedback identifiers. */
  readonly identifier: (id: string) => string;
}

export function renameItem(item: Item, to: Renames): Item {
  const scalar = (value: Scalar, baseType: string | null): Scalar =>
    baseType === 'identifier' ? to.identifier(String(value)) : value;
  return {
    ...item,
    body: item.body.map((n) => renameNode(n, to)),
    responses: item.responses.map((r) => ({
      ...r,
      id: to.response(r.id),
      correct: r.correct.map((v) => scalar(v, r.baseType)),
      mapping: r.mapping && {
        ...r.mapping,
        entries: r.mapping.entries.map((e) => ({ ...e, key: scalar(e.key, r.baseType) })),
      },
    })),
    outcomes: item.outcomes.map((o) => ({
      ...o,
      id: to.outcome(o.id),
      defaultValue: o.defaultValue.map((v) => scalar(v, o.baseType)),
    })),
    scoreOutcome: to.outcome(item.scoreOutcome),
    scoring: { ...item.scoring, rules: item.scoring.rules.map((r) => renameRule(r, item, to)) },
    feedback: item.feedback.map((f) => ({
      ...f,
      id: to.identifier(f.id),
      outcome: to.outcome(f.outcome),
      content: f.content.map((n) => renameNode(n, to)),
    })),
  };
}

function renameNode(node: ContentNode, to: Renames): ContentNode {
  const inside = (nodes: readonly ContentNode[]): ContentNode[] => nodes.map((n) => renameNode(n, to));
  switch (node.kind) {
    case 'text':
    case 'opaque':
    case 'math':
      return node;
    case 'element':
    case 'rubricBlock':
      return { ...node, children: inside(node.children) };
    case 'feedback':
      return {
        ...node,
        outcome: to.outcome(node.outcome),
        identifier: to.identifier(node.identifier),
        children: inside(node.children),
      };
    case 'choice':
      return {
        ...node,
        responseId: to.response(node.responseId),
        prompt: inside(node.prompt),
        choices: node.choices.map((c) => ({ ...c, id: to.identifier(c.id), content: inside(c.content) })),
      };
    case 'textEntry':
      return { ...node, responseId: to.response(node.responseId) };
    case 'extendedText':
      return { ...node, responseId: to.response(node.responseId), prompt: inside(node.prompt) };
    case 'custom':
      return node;
  }
}

function renameRule(rule: Rule, item: Item, to: Renames): Rule {
  switch (rule.do) {
    case 'exit':
      return rule;
    case 'if':
      return {
        do: 'if',
        branches: rule.branches.map((b) => ({
          when: renameExpr(b.when, item, to),
          then: b.then.map((r) => renameRule(r, item, to)),
        })),
        otherwise: rule.otherwise.map((r) => renameRule(r, item, to)),
      };
    case 'set':
    case 'lookup':
      return { ...rule, id: to.outcome(rule.id), value: renameExpr(rule.value, item, to) };
  }
}

function renameExpr(expr: Expr, item: Item, to: Renames): Expr {
  switch (expr.op) {
    case 'null':
      return expr;
    case 'baseValue':
      return expr.baseType === 'identifier' ? { ...expr, value: to.identifier(String(expr.value)) } : expr;
    case 'variable':
      return {
        ...expr,
        id: item.responses.some((r) => r.id === expr.id) ? to.response(expr.id) : to.outcome(expr.id),
      };
    case 'default':
      return { ...expr, id: to.outcome(expr.id) };
    case 'correct':
    case 'mapResponse':
    case 'mapResponsePoint':
      return { ...expr, id: to.response(expr.id) };
    case 'call':
      return { ...expr, args: expr.args.map((a) => renameExpr(a, item, to)) };
  }
}

/** A name that QTI 2 takes as an identifier; equal names stay equal, different ones stay different. */
export function identifierMaker(prefix: string): (id: string) => string {
  const given = new Map<string, string>();
  const used = new Set<string>();
  return (id) => {
    const had = given.get(id);
    if (had !== undefined) return had;
    let safe = id.replace(/[^\p{L}\p{N}_.-]/gu, '_');
    if (!/^[\p{L}_]/u.test(safe)) safe = `${prefix}${safe}`;
    let unique = safe;
    for (let n = 2; used.has(unique); n++) unique = `${safe}_${n}`;
    used.add(unique);
    given.set(id, unique);
    return unique;
  };
}
