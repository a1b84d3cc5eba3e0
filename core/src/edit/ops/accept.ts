import { near } from '../../model/number.ts';
import { composed } from '../../model/composed.ts';
import { recognise, shapeIn } from '../../scoring/recognise.ts';
import { responseOf, withKey, worthOf, type Accepted } from '../keys.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import { rescore } from '../rescore.ts';
import type { EditOf } from '../schema.ts';
import type { ItemOperation } from './operation.ts';
import { rewritable, together } from './rewriting.ts';

export const ACCEPT: ItemOperation<'accept'> = {
  on: 'item',
  now: (item, edit) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return response;
    const part = shapeIn(recognise(item).shape, response.id);
    return part?.kind === 'accepted-answers' ? byText(part.answers) : [];
  },
  wanted: (edit, item) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return undefined;
    const part = acceptedPart(edit, worthOf(item, recognise(item), response));
    return isRefused(part) ? undefined : byText(part.answers);
  },
  apply: (item, edit) => {
    const recognised = rewritable(item, edit.replace);
    if (isRefused(recognised)) return recognised;
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return response;
    const typed = response.cardinality === 'single' && response.baseType === 'string';
    const before = shapeIn(recognised.shape, response.id);
    if (!typed || (before?.kind === 'pattern' && !edit.replace))
      return refused('scoring-other', { op: 'accept', kind: before?.kind ?? 'none' });
    const part = acceptedPart(edit, worthOf(item, recognised, response));
    if (isRefused(part)) return part;
    const shape = together(item, recognised.shape, response, part);
    const full = part.answers.filter((a) => near(a.points, Math.max(...part.answers.map((x) => x.points))));
    return rescore(
      item,
      shape,
      withKey(
        recognised.key,
        response.id,
        full.map((a) => a.text),
      ),
      // Points that somebody names are the item's from now on; where none are named they stay.
      edit.to.some((a) => a.points !== undefined) ? { points: null } : {},
    );
  },
};

const byText = (answers: Accepted['answers']): Accepted['answers'] =>
  [...answers].sort((a, b) => (a.text < b.text ? -1 : a.text > b.text ? 1 : 0));

function acceptedPart(edit: EditOf<'accept'>, points: number): Accepted | Refused {
  if (edit.to.length === 0) return refused('key-empty');
  const answers = edit.to.map((a) => ({
    text: a.text.trim(),
    points: a.points ?? points,
    caseSensitive: a.caseSensitive ?? false,
  }));
  if (answers.some((a) => a.text === '')) return refused('key-value', { value: '', wants: 'a text' });
  if (answers.some((a) => a.points < 0)) return refused('points-negative');
  if (!answers.some((a) => a.points > 0)) return refused('key-empty');
  const twice = twiceIn(answers);
  return twice === null ? { kind: 'accepted-answers', answers } : refused('answer-twice', { text: twice });
}

/** A text that stands twice, capitals aside where they do not matter. */
export function twiceIn(answers: Accepted['answers']): string | null {
  const seen = new Map<string, Accepted['answers'][number]>();
  for (const a of answers) {
    const exactly = `=${composed(a.text)}`;
    const folded = `~${composed(a.text.toLowerCase())}`;
    if (seen.has(exactly) || (!a.caseSensitive && seen.has(folded))) return a.text;
    seen.set(exactly, a);
    if (!a.caseSensitive) seen.set(folded, a);
  }
  return null;
}
