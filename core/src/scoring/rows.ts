import type { ContentNode, MatchInteraction } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { call, response, value, variable } from '../model/make.ts';
import { mapRule } from '../model/mapRule.ts';
import type { Expr } from '../model/scoring.ts';
import { interactionsOf, mapLists } from '../model/visit.ts';

/** A row of a QTI 1.2 match: the response that asked it, what stands at its left, what can be chosen. */
interface Row {
  readonly pairs: string;
  readonly left: string;
  readonly rights: readonly string[];
}

const pair = (left: string, right: string): Expr => value('directedPair', `${left} ${right}`);

/** QTI 1.2 asks each row of a match by a response of its own; QTI 2 asks all by one response of pairs. */
export function joinRows(item: Item): Item {
  const matches = interactionsOf(item).filter(
    (i): i is MatchInteraction => i.kind === 'match' && i.rows !== null,
  );
  if (matches.length === 0) return item;
  const rows = new Map<string, Row>();
  for (const match of matches) {
    for (const [left, id] of Object.entries(match.rows!))
      rows.set(id, { pairs: match.responseId, left, rights: match.right.map((c) => c.id) });
  }
  const correct = (match: MatchInteraction): string[] =>
    Object.entries(match.rows!).flatMap(([left, id]) =>
      (item.responses.find((r) => r.id === id)?.correct ?? []).map((right) => `${left} ${right}`),
    );
  const joined = matches.map((m) => response(m.responseId, 'multiple', 'directedPair', correct(m)));
  const taken = new Set(rows.keys());
  const body = (nodes: readonly ContentNode[]): ContentNode[] =>
    nodes.map((n) => mapLists(n.kind === 'match' && n.rows !== null ? asPairs(n) : n, body));
  return {
    ...item,
    body: body(item.body),
    responses: [...item.responses.filter((r) => !taken.has(r.id)), ...joined],
    scoring: { ...item.scoring, rules: item.scoring.rules.map((r) => mapRule(r, (e) => joinExpr(e, rows))) },
  };
}

/** Each row is answered once, by any of its choices. */
const asPairs = (match: MatchInteraction): MatchInteraction => ({
  ...match,
  rows: null,
  maxAssociations: match.left.length,
  left: match.left.map((c) => ({ ...c, matchMax: 1 })),
  right: match.right.map((c) => ({ ...c, matchMax: 0 })),
});

function joinExpr(expr: Expr, rows: ReadonlyMap<string, Row>): Expr {
  if (expr.op !== 'call') return expr;
  const answer = expr.args.find((a) => a.op === 'variable' && rows.has(a.id));
  const row = answer?.op === 'variable' ? rows.get(answer.id)! : null;
  const other = expr.args.find((a) => a !== answer);
  if (row && (expr.name === 'match' || expr.name === 'member') && other?.op === 'baseValue')
    return call('member', [pair(row.left, String(other.value)), variable(row.pairs)]);
  if (row && expr.name === 'isNull') {
    const any = row.rights.map((right) => call('member', [pair(row.left, right), variable(row.pairs)]));
    // With nothing paired at all, "member" is NULL and so is its negation.
    return call('or', [call('isNull', [variable(row.pairs)]), call('not', [call('or', any)])]);
  }
  return { ...expr, args: expr.args.map((a) => joinExpr(a, rows)) };
}
