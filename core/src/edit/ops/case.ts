import type { Item } from '../../model/holding.ts';
import { mapRule } from '../../model/mapRule.ts';
import type { Expr, ResponseDeclaration } from '../../model/scoring.ts';
import { recognise, shapeIn } from '../../scoring/recognise.ts';
import type { ScoringShape } from '../../scoring/shapes.ts';
import { withPart, type Accepted } from '../keys.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import { rescore } from '../rescore.ts';
import type { EditOf } from '../schema.ts';
import type { ItemOperation } from './operation.ts';
import { twiceIn } from './accept.ts';
import { rewritable, scores } from './rewriting.ts';

export const CASE: ItemOperation<'case'> = {
  on: 'item',
  now: (item, edit) => {
    const flags = caseFlags(item, edit);
    if (isRefused(flags)) return flags;
    return flags.every((f) => f) ? true : flags.some((f) => f) ? null : false;
  },
  wanted: (edit) => edit.to,
  apply: (item, edit) => {
    const recognised = rewritable(item, false);
    if (isRefused(recognised)) return recognised;
    let shape = recognised.shape;
    let substrings = false;
    for (const { id } of textResponses(item, shape, edit.response)) {
      const part = shapeIn(shape, id)!;
      if (part.kind === 'pattern') substrings = true;
      if (part.kind !== 'accepted-answers') continue;
      const changed: Accepted = {
        ...part,
        answers: part.answers.map((a) => ({ ...a, caseSensitive: edit.to })),
      };
      const twice = twiceIn(changed.answers);
      if (twice !== null) return refused('answer-twice', { text: twice });
      shape = withPart(item, shape, id, changed);
    }
    if (substrings && shape === recognised.shape) return recased(item, edit.to);
    return rescore(item, shape, recognised.key);
  },
};

/** Responses whose scoring is by text, and in which capitals can matter. */
function textResponses(item: Item, shape: ScoringShape, given: string | undefined): ResponseDeclaration[] {
  return item.responses.filter((r) => {
    if (given !== undefined && r.id !== given) return false;
    const part = shapeIn(shape, r.id);
    if (shape.kind !== 'sum-of-parts' && item.responses.length > 1 && !scores(item, r)) return false;
    return part?.kind === 'accepted-answers' || (part?.kind === 'pattern' && part.patterns.length === 0);
  });
}

function caseFlags(item: Item, edit: EditOf<'case'>): boolean[] | Refused {
  const { shape } = recognise(item);
  const flags = textResponses(item, shape, edit.response).flatMap((r) => {
    const part = shapeIn(shape, r.id);
    return part?.kind === 'accepted-answers'
      ? part.answers.map((a) => a.caseSensitive)
      : substringCase(item, r.id);
  });
  return flags.length > 0 ? flags : refused('scoring-other', { op: 'case', kind: shape.kind });
}

const matchesPart = (e: Extract<Expr, { op: 'call' }>): boolean =>
  e.name === 'substring' || e.name === 'stringMatch';

function substringCase(item: Item, response: string): boolean[] {
  const out: boolean[] = [];
  const visit = (e: Expr): Expr => {
    if (e.op !== 'call') return e;
    if (matchesPart(e) && e.args.some((a) => a.op === 'variable' && a.id === response))
      out.push(e.attrs?.['caseSensitive'] !== 'false');
    e.args.forEach(visit);
    return e;
  };
  item.scoring.rules.forEach((r) => mapRule(r, visit));
  return out;
}

function recased(item: Item, to: boolean): Item {
  const expr = (e: Expr): Expr => {
    if (e.op !== 'call') return e;
    const args = e.args.map(expr);
    const attrs = matchesPart(e) ? { ...(e.attrs ?? {}), caseSensitive: String(to) } : e.attrs;
    return { ...e, args, ...(attrs ? { attrs } : {}) };
  };
  return { ...item, scoring: { ...item.scoring, rules: item.scoring.rules.map((r) => mapRule(r, expr)) } };
}
