import type { Item } from '../../model/holding.ts';
import { near } from '../../model/number.ts';
import { own } from '../../model/own.ts';
import type { ResponseDeclaration } from '../../model/scoring.ts';
import { rawScore } from '../../scoring/evaluate.ts';
import { candidatesOf, choiceIds } from '../../scoring/probe.ts';
import { recognise, shapeIn, type Recognised } from '../../scoring/recognise.ts';
import type { ScoringShape } from '../../scoring/shapes.ts';
import { retyped } from '../keys.ts';
import { refused } from '../refusal.ts';
import { rescore } from '../rescore.ts';
import type { ItemOperation } from './operation.ts';

/** All or nothing, or accepted texts instead of a number or a pattern, in one attempt: scores change. */
export const SIMPLER: ItemOperation<'scoring'> = {
  on: 'item',
  now: (item) => recognise(item).shape.kind,
  wanted: (edit, item) => (item.adaptive ? null : edit.to),
  apply: (given, { to }) => {
    if (given.templates.length > 0) return refused('parameters-drawn');
    const item: Item = given.adaptive ? { ...given, adaptive: false } : given;
    const recognised = recognise(item);
    const { key } = recognised;
    const scored = item.responses.filter((r) => (own(key, r.id) ?? []).length > 0);
    const points = item.points > 0 ? item.points : 1;
    if (to === 'all-or-nothing') {
      if (scored.length === 0) return refused('key-empty');
      const typed = scored.length === 1 ? allTexts(item, recognised, scored[0]!, points) : null;
      if (typed) return rescore(item, typed, key);
      const ordered = scored.length === 1 && scored[0]!.cardinality === 'ordered';
      return rescore(item, { kind: 'all-or-nothing', points, ordered }, key);
    }
    const [response] = item.responses;
    const texts = item.responses.length === 1 && response ? textsFor(item, recognised, response.id) : [];
    if (!response || texts.length === 0)
      return refused('scoring-other', { op: to, kind: recognised.shape.kind });
    const typed = retyped(item, response.id, { baseType: 'string' });
    const shape: ScoringShape = {
      kind: 'accepted-answers',
      answers: texts.map((t) => ({ text: t, points, caseSensitive: recognised.shape.kind === 'pattern' })),
    };
    return rescore(typed, shape, { [response.id]: texts });
  },
};

/** Of texts that are typed, those that get all points now, capitals as they matter to each. */
function allTexts(
  item: Item,
  { shape }: Recognised,
  { id }: Pick<ResponseDeclaration, 'id'>,
  points: number,
): ScoringShape | null {
  const part = shapeIn(shape, id);
  if (part?.kind !== 'accepted-answers' || choiceIds(item, id).length > 0) return null;
  const most = Math.max(...part.answers.map((a) => a.points));
  const answers = part.answers.filter((a) => near(a.points, most)).map((a) => ({ ...a, points }));
  return { kind: 'accepted-answers', answers };
}

/** Texts that get all points: a number as it is written; of a pattern, those that were found by trying. */
function textsFor(item: Item, { shape, best }: Recognised, response: string): readonly string[] {
  if (shape.kind === 'numeric') return numberTexts(shape.value);
  if (shape.kind !== 'pattern') return [];
  const tried = candidatesOf(item, best.answers).get(response)?.values ?? [];
  const full = tried.filter((v) => near(rawScore(item, { [response]: v }), best.raw));
  return [...new Set(full.map(([v]) => String(v).trim()))].filter((t) => t !== '');
}

/** How people write a number: with a point, and with a comma. */
const numberTexts = (n: number): string[] => [...new Set([String(n), String(n).replace('.', ',')])];
