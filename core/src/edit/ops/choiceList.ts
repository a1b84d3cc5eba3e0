import equal from 'fast-deep-equal';
import type { Choice, ContentNode, Interaction } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { text } from '../../model/make.ts';
import { near } from '../../model/number.ts';
import { choicesOf, responseIdsOf } from '../../model/options.ts';
import { own } from '../../model/own.ts';
import { plain } from '../../model/plainText.ts';
import { interactionsOf, isInteraction, mapLists, walk } from '../../model/visit.ts';
import type { ResponseDeclaration } from '../../model/scoring.ts';
import { bestOf } from '../../scoring/best.ts';
import { rawScore } from '../../scoring/evaluate.ts';
import { feedbackRoles } from '../../scoring/feedbackRoles.ts';
import { literalsOf } from '../../scoring/literals.ts';
import { pairEnds } from '../../scoring/probe.ts';
import { mostOf } from '../../scoring/programFor.ts';
import { recognise, type Recognised } from '../../scoring/recognise.ts';
import type { Key, ScoringShape } from '../../scoring/shapes.ts';
import { commonest, keyed, withKey, worthAgain } from '../keys.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import { rescore, withoutFeedback } from '../rescore.ts';
import type { ItemOperation } from './operation.ts';
import { about, choiceIn, holderOf, mapChoices, mapParts, unknown } from './choices.ts';

const BAD_ID = /\s/u;

export const CHOICE_ADD: ItemOperation<'choice-add'> = {
  on: 'item',
  now: (item, { choice }) => {
    const found = choiceIn(item, choice);
    return found ? plain(found.content) : null;
  },
  wanted: (edit) => edit.to.replace(/\s+/gu, ' ').trim(),
  apply: (item, edit) => {
    if (choicesOf(item).some((c) => c.id === edit.choice))
      return refused('choice-exists', { choice: edit.choice });
    if (BAD_ID.test(edit.choice)) return refused('choice-id', { choice: edit.choice });
    const holder = placeFor(item, edit.after, edit.response);
    if (isRefused(holder)) return holder;
    const made: Choice = { id: edit.choice, content: [text(edit.to.trim())], fixed: false };
    const next = mapChoices(item, (list, interaction) => {
      if (interaction !== holder) return list;
      if (edit.after === null) return interaction.kind === 'match' ? list : [made, ...list];
      const at = list.findIndex((c) => c.id === edit.after);
      return at < 0 ? list : [...list.slice(0, at + 1), made, ...list.slice(at + 1)];
    });
    return scoredWithMore(item, next, holder, edit.choice);
  },
};

/** The interaction a new choice comes into: that of the one before it, of the response named, or the only one. */
function placeFor(item: Item, after: string | null, response: string | undefined): Interaction | Refused {
  const offering = interactionsOf(item).filter(
    (i) => ('choices' in i || i.kind === 'match') && about(i, response),
  );
  if (after !== null) {
    const found = offering.find((i) =>
      i.kind === 'match'
        ? [...(i.rows ? [] : i.left), ...i.right].some((c) => c.id === after)
        : 'choices' in i && i.choices.some((c) => c.id === after),
    );
    return found ?? unknown(item, after);
  }
  const listed = offering.filter((i) => i.kind !== 'match');
  return listed.length === 1 ? listed[0]! : refused('choice-place');
}

/** An added choice is wrong and never free: it costs what other wrong ones cost. */
function scoredWithMore(item: Item, next: Item, holder: Interaction, choice: string): Item | Refused {
  const before = recognise(item);
  const { shape } = before;
  if (!keyed(shape)) return next;
  const responses = responseIdsOf(holder);
  if (shape.kind === 'program')
    return harmless(item, next, responses, choice, before) ? next : refused('scoring-program');
  const wanted = mapParts(shape, responses, (part) => {
    if (part.kind !== 'per-choice' || part.unit !== 'choice') return part;
    const wrong = Object.values(part.values).filter((v) => v <= 0);
    return { ...part, values: { ...part.values, [choice]: Math.min(0, commonest(wrong, 0)) } };
  });
  const settled = recognise(next);
  const already = same(settled.shape, wanted) && same(settled.key, before.key);
  return already ? next : rescore(next, wanted, before.key, { before: item });
}

/** The same data, whatever its names are: those of an object's own methods would mislead a deep comparison. */
const same = (a: ScoringShape | Key, b: ScoringShape | Key): boolean =>
  JSON.stringify(listed(a)) === JSON.stringify(listed(b));

const listed = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(listed)
    : typeof value === 'object' && value !== null
      ? Object.entries(value)
          .sort(([x], [y]) => (x < y ? -1 : 1))
          .map(([name, v]) => [name, listed(v)])
      : value;

/** Whether a program of its own gives nothing more for picking the new choice. */
function harmless(
  item: Item,
  next: Item,
  responses: readonly string[],
  choice: string,
  { best }: Recognised,
): boolean {
  return responses.every((id) => {
    const response = item.responses.find((r) => r.id === id);
    if (!response || response.cardinality !== 'single') return false;
    return (
      rawScore(next, { ...best.answers, [id]: [choice] }) < best.raw &&
      rawScore(next, { [id]: [choice] }) <= 0
    );
  });
}

export const CHOICE_DROP: ItemOperation<'choice-drop'> = {
  on: 'item',
  now: (item, { choice, was }) => {
    const found = choiceIn(item, choice);
    if (found) return plain(found.content);
    // What has been taken out already needs no taking out; what never was there is a mistake.
    return was === undefined || was === null ? unknown(item, choice) : null;
  },
  wanted: () => null,
  apply: (item, { choice }) => {
    const holder = holderOf(item, choice);
    if (!holder || !choiceIn(item, choice)) return unknown(item, choice);
    if (holder.kind === 'match' && holder.rows && holder.left.some((c) => c.id === choice))
      return refused('choice-place');
    const cut = mapChoices(item, (list) => list.filter((c) => c.id !== choice));
    if (lists(cut, holder).some((n) => n === 0)) return refused('choice-last');
    return scoredWithLess(item, fewerPicks(cut, holder), holder, choice);
  },
};

const lists = (item: Item, like: Interaction): number[] => {
  const at = interactionsOf(item).find((i) => equal(responseIdsOf(i), responseIdsOf(like)));
  if (!at) return [];
  return at.kind === 'match' ? [at.left.length, at.right.length] : 'choices' in at ? [at.choices.length] : [];
};

/** No more can be asked for than there is. */
function fewerPicks(item: Item, holder: Interaction): Item {
  const list = (nodes: readonly ContentNode[]): ContentNode[] =>
    nodes.map((given) => {
      const node = mapLists(given, list);
      if (!isInteraction(node) || !('maxChoices' in node) || !('choices' in node)) return node;
      if (!equal(responseIdsOf(node), responseIdsOf(holder))) return node;
      const most = node.choices.length;
      return {
        ...node,
        maxChoices: Math.min(node.maxChoices, most),
        minChoices: Math.min(node.minChoices, most),
      };
    });
  return { ...item, body: list(item.body) };
}

/** What is left is worth as much as before; the only right answer cannot go. */
function scoredWithLess(item: Item, cut: Item, holder: Interaction, choice: string): Item | Refused {
  const before = recognise(item);
  const next = withoutItsFeedback(item, cut, choice);
  const { shape } = before;
  const responses = responseIdsOf(holder);
  const literals = literalsOf(item);
  const paired = pairEnds(holder) !== null;
  const about = (v: unknown): boolean =>
    paired ? String(v).split(' ').includes(choice) : String(v) === choice;
  const named = responses.some((id) => (literals.get(id)?.values ?? []).some(about));
  if (!keyed(shape))
    return {
      ...next,
      responses: next.responses.map((r) => (responses.includes(r.id) ? cleared(r, about) : r)),
    };
  const key = responses.reduce<Key>(
    (k, id) =>
      withKey(
        k,
        id,
        (own(k, id) ?? []).filter((v) => !about(v)),
      ),
    before.key,
  );
  const lost = responses.some(
    (id) => (own(before.key, id) ?? []).length > 0 && (own(key, id) ?? []).length === 0,
  );
  if (lost) return refused('choice-only-right', { choice });
  // A program of its own has to give as much without it.
  if (shape.kind === 'program')
    return named || !near(bestOf(next).raw, before.best.raw) ? refused('scoring-program') : next;
  const wanted = mapParts(shape, responses, (part) => {
    if (part.kind !== 'per-choice') return part;
    const values = Object.fromEntries(Object.entries(part.values).filter(([id]) => !about(id)));
    const response = item.responses.find((r) => responses.includes(r.id));
    const single = response?.cardinality === 'single';
    return worthAgain({ ...part, values }, single, mostOf(part, single));
  });
  const settled = recognise(next);
  const already = !named && same(settled.shape, wanted) && near(settled.best.raw, before.best.raw);
  return already ? next : rescore(next, wanted, key, { before: item });
}

const cleared = (r: ResponseDeclaration, gone: (v: unknown) => boolean): ResponseDeclaration => ({
  ...r,
  correct: r.correct.filter((v) => !gone(v)),
  mapping: r.mapping && { ...r.mapping, entries: r.mapping.entries.filter((e) => !gone(e.key)) },
});

/** The text that answers who picked a choice goes with it. */
function withoutItsFeedback(item: Item, cut: Item, choice: string): Item {
  let any = item.feedback.length > 0;
  walk(item.body, (n) => void (any ||= n.kind === 'feedback'));
  if (!any) return cut;
  const gone = feedbackRoles(item).filter((f) => f.role?.on === 'choice' && f.role.choice === choice);
  if (gone.length === 0) return cut;
  const is = (id: string, outcome: string): boolean => gone.some((f) => f.id === id && f.outcome === outcome);
  return {
    ...cut,
    body: withoutFeedback(cut.body, is),
    feedback: cut.feedback.filter((f) => f.kind !== 'general' || !is(f.id, f.outcome)),
  };
}
