import type { Choice, ContentNode, Hotspot } from '../model/content.ts';
import { mapRule } from '../model/mapRule.ts';
import { mapLists } from '../model/visit.ts';
import type { Item } from '../model/holding.ts';
import type { Expr, Rule, Scalar } from '../model/scoring.ts';

/** Systematic renaming through an item: content, responses, outcomes, feedback and program stay in step. */
interface Renames {
  readonly response: (id: string) => string;
  readonly outcome: (id: string) => string;
  /** Choice and feedback identifiers. */
  readonly identifier: (id: string) => string;
}

export function renameItem(item: Item, to: Renames): Item {
  const scalar = (value: Scalar, baseType: string | null): Scalar => renameScalar(value, baseType, to);
  return {
    ...item,
    body: item.body.map((n) => renameNode(n, to)),
    responses: item.responses.map((r) => ({
      ...r,
      id: to.response(r.id),
      correct: r.correct.map((v) => scalar(v, r.baseType)),
      ...(r.defaultValue ? { defaultValue: r.defaultValue.map((v) => scalar(v, r.baseType)) } : {}),
      mapping: r.mapping && {
        ...r.mapping,
        entries: r.mapping.entries.map((e) => ({ ...e, key: scalar(e.key, r.baseType) })),
      },
    })),
    outcomes: item.outcomes.map((o) => ({
      ...o,
      id: to.outcome(o.id),
      defaultValue: o.defaultValue.map((v) => scalar(v, o.baseType)),
      lookup: o.lookup && {
        ...o.lookup,
        entries: o.lookup.entries.map((e) => ({ ...e, target: scalar(e.target, o.baseType) })),
        defaultValue: o.lookup.defaultValue === null ? null : scalar(o.lookup.defaultValue, o.baseType),
      },
    })),
    templates: item.templates.map((t) => ({
      ...t,
      id: to.outcome(t.id),
      defaultValue: t.defaultValue.map((v) => scalar(v, t.baseType)),
    })),
    templateRules: item.templateRules.map((r) => renameRule(r, item, to)),
    stimuli: item.stimuli.map((s) => ({ ...s, content: s.content.map((n) => renameNode(n, to)) })),
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

/** Identifiers, and the two that a pair is made of. */
function renameScalar(value: Scalar, baseType: string | null, to: Renames): Scalar {
  if (baseType === 'identifier' || baseType === 'intOrIdentifier')
    return typeof value === 'number' ? value : to.identifier(String(value));
  if (baseType !== 'pair' && baseType !== 'directedPair') return value;
  return String(value)
    .split(' ')
    .map((part) => to.identifier(part))
    .join(' ');
}

function renameNode(node: ContentNode, to: Renames): ContentNode {
  return renameSelf(
    mapLists(node, (list) => list.map((n) => renameNode(n, to))),
    to,
  );
}

/** A node's own identifiers; what stands inside it has been renamed already. */
function renameSelf(node: ContentNode, to: Renames): ContentNode {
  const choice = (c: Choice): Choice => ({
    ...c,
    id: to.identifier(c.id),
    ...(c.template
      ? {
          template: {
            ...c.template,
            id: to.outcome(c.template.id),
            identifier: to.identifier(c.template.identifier),
          },
        }
      : {}),
  });
  const spot = (h: Hotspot): Hotspot => ({ ...h, id: to.identifier(h.id) });
  switch (node.kind) {
    case 'text':
    case 'element':
    case 'math':
    case 'rubricBlock':
    case 'opaque':
    case 'infoControl':
    case 'custom':
      return node;
    case 'feedback':
      return { ...node, outcome: to.outcome(node.outcome), identifier: to.identifier(node.identifier) };
    case 'template':
      return { ...node, template: to.outcome(node.template), identifier: to.identifier(node.identifier) };
    case 'printedVariable':
      return { ...node, id: to.outcome(node.id) };
    case 'gap':
    case 'hottextChoice':
      return { ...node, id: to.identifier(node.id) };
    case 'choice':
    case 'order':
    case 'associate':
    case 'inlineChoice':
    case 'gapMatch':
      return { ...node, responseId: to.response(node.responseId), choices: node.choices.map(choice) };
    case 'match':
      return {
        ...node,
        responseId: to.response(node.responseId),
        left: node.left.map(choice),
        right: node.right.map(choice),
        rows:
          node.rows &&
          Object.fromEntries(Object.entries(node.rows).map(([id, r]) => [to.identifier(id), to.response(r)])),
      };
    case 'hotspot':
    case 'graphicOrder':
    case 'graphicAssociate':
      return { ...node, responseId: to.response(node.responseId), hotspots: node.hotspots.map(spot) };
    case 'graphicGapMatch':
      return {
        ...node,
        responseId: to.response(node.responseId),
        choices: node.choices.map(choice),
        hotspots: node.hotspots.map(spot),
      };
    case 'textEntry':
    case 'extendedText':
    case 'hottext':
    case 'selectPoint':
    case 'positionObject':
    case 'slider':
    case 'upload':
    case 'drawing':
    case 'media':
    case 'endAttempt':
      return { ...node, responseId: to.response(node.responseId) };
  }
}

function renameRule(rule: Rule, item: Item, to: Renames): Rule {
  const renamed = (expr: Expr): Expr => renameExpr(expr, item, to);
  return mapRule(rule, renamed, (step) => {
    const value = renamed(step.value);
    if (step.do === 'constraint') return { ...step, value };
    const ofResponse = step.do === 'setCorrect' || step.do === 'setDefault';
    return { ...step, id: ofResponse ? to.response(step.id) : to.outcome(step.id), value };
  });
}

function renameExpr(expr: Expr, item: Item, to: Renames): Expr {
  switch (expr.op) {
    case 'null':
      return expr;
    case 'baseValue':
      return { ...expr, value: renameScalar(expr.value, expr.baseType, to) };
    case 'variable':
      return {
        ...expr,
        id: item.responses.some((r) => r.id === expr.id) ? to.response(expr.id) : to.outcome(expr.id),
      };
    case 'default':
      return {
        ...expr,
        id: item.responses.some((r) => r.id === expr.id) ? to.response(expr.id) : to.outcome(expr.id),
      };
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
