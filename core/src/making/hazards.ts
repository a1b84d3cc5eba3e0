import { checkItem, checkWhole } from '../checks/index.ts';
import { commonest } from '../edit/keys.ts';
import { metTwice, type MetTwice } from '../exam/twice.ts';
import type { FindingCode } from '../model/codes.ts';
import { finding } from '../model/finding.ts';
import type { Quiz } from '../model/holding.ts';
import { near, plainNumber } from '../model/number.ts';
import { nameOf } from '../model/plainText.ts';
import { repairsOf } from '../repair/index.ts';
import type { DraftChange } from './changes.ts';
import { MAX_MADE, sameItem, type ItemAt, type QuizDraft } from './draft.ts';
import { whole, type Hazard, type Situation } from './hazard.ts';
import { planned, unasked } from './planHazards.ts';

/** Findings of whole packages that say nothing of one quiz, or that are told in another way here. */
const NOT_HERE: ReadonlySet<FindingCode> = new Set([
  'draw-too-large',
  'draw-points-unequal',
  'duplicate-items',
  'near-duplicate-items',
  'family-drawn-twice',
  'item-unused',
  'bank-mixed-kinds',
]);
/** Of one sort so many are listed; more would hide the others. */
const MOST_OF_A_SORT = 20;
/** What is met together more rarely than this is told with the fairness of draws, and not here. */
const RARELY = 0.001;

/** Everything that is wrong with a quiz, the worst first. */
export function hazardsOf(situation: Situation): Hazard[] {
  const [quiz] = situation.holding.quizzes;
  if (!quiz) return [];
  const all = [
    ...gone(situation),
    ...rubrics(situation),
    ...draws(situation, quiz),
    ...(situation.whole ? twice(situation, quiz) : later(situation)),
    ...settings(situation),
    ...(situation.whole ? ofItems(situation, quiz) : []),
    ...planned(situation),
    ...unasked(situation),
  ];
  const worth = { error: 0, warning: 1, note: 2 } as const;
  const bySort = new Map<string, number>();
  return all
    .filter(({ finding: { code } }) => {
      const n = (bySort.get(code) ?? 0) + 1;
      bySort.set(code, n);
      return n <= MOST_OF_A_SORT;
    })
    .sort((a, b) => worth[a.finding.severity] - worth[b.finding.severity]);
}

const later = ({ holding }: Situation): Hazard[] => {
  const count = holding.items.length;
  return count > MAX_MADE
    ? [whole(finding('made-too-large', 'error', {}, { count, limit: MAX_MADE }))]
    : [whole(finding('looked-at-later', 'note', {}, { count }))];
};

function gone({ gone: items, draft }: Situation): Hazard[] {
  if (items.length === 0) return [];
  const missing = (at: ItemAt): boolean => items.some((g) => sameItem(g, at));
  const keys = draft.sections.flatMap((s) => s.items.filter(missing).map((i) => i.key));
  const drops = draft.sections.flatMap((s): DraftChange[] => {
    const named = s.draw?.pool.named.filter(missing) ?? [];
    return named.length > 0 ? [{ do: 'without', section: s.id, items: named }] : [];
  });
  return [
    whole(finding('source-gone', 'error', {}, { count: items.length }), [{ do: 'remove', keys }, ...drops]),
  ];
}

/** No package carries rubrics. */
const rubrics = ({ holding }: Situation): Hazard[] =>
  holding.rubrics.length === 0
    ? []
    : [
        whole(
          finding(
            'rubric-stays',
            'note',
            {},
            {
              rubrics: holding.rubrics.map((r) => `“${r.title || r.id}”`).join(', '),
            },
          ),
        ),
      ];

function draws({ draft, holding }: Situation, quiz: Quiz): Hazard[] {
  const points = new Map(holding.items.map((i) => [i.id, i.points]));
  return draft.sections.flatMap((s, at): Hazard[] => {
    const pool = quiz.sections[at]?.draw?.pool ?? [];
    if (!s.draw) return [];
    const here = { section: s.id, item: null };
    const { pick, pointsEach } = s.draw;
    if (pool.length === 0)
      return [{ ...here, finding: finding('draw-empty', 'error', {}, { section: s.title }), changes: null }];
    const out: Hazard[] = [];
    if (pick > pool.length)
      out.push({
        ...here,
        finding: finding('draw-too-large', 'error', {}, { pick, of: pool.length, section: s.title }),
        changes: [{ do: 'draw', section: s.id, to: { pick: pool.length } }],
      });
    const worth = pool.map((id) => points.get(id) ?? 0).sort((a, b) => a - b);
    const distinct = worth.filter((p, n) => n === 0 || !near(p, worth[n - 1]!));
    if (distinct.length > 1) {
      const params = { points: distinct.map(plainNumber).join(', '), section: s.title };
      const to = commonest(
        worth.filter((p) => p > 0),
        1,
      );
      // Where points are said already, only items that give nothing are left unequal.
      const changes: DraftChange[] | null =
        pointsEach === null
          ? [{ do: 'draw', section: s.id, to: { pointsEach: to } }]
          : worthSomething(pool, points, pointsEach);
      out.push({ ...here, finding: finding('draw-points-unequal', 'warning', {}, params), changes });
    }
    return out;
  });
}

/** Items that give no points, made worth what the draw says. */
function worthSomething(
  pool: readonly string[],
  points: ReadonlyMap<string, number>,
  to: number,
): DraftChange[] | null {
  const none = pool.filter((id) => (points.get(id) ?? 0) <= 0);
  return none.length > 0 ? [{ do: 'edits', edits: none.map((node) => ({ op: 'points', node, to })) }] : null;
}

/** One of two that ask the same goes: out of a draw before it goes out of what everybody is set. */
function twice({ holding, draft, from }: Situation, quiz: Quiz): Hazard[] {
  const items = new Map(holding.items.map((i) => [i.id, i]));
  const drawn = (id: string): string | null =>
    draft.sections[quiz.sections.findIndex((s) => s.draw?.pool.includes(id))]?.id ?? null;
  const fixed = (id: string): string | null =>
    draft.sections[quiz.sections.findIndex((s) => s.items.some((r) => r.item === id))]?.id ?? null;
  const remedy = ([a, b]: MetTwice['items']): {
    section: string | null;
    item: string;
    changes: DraftChange[];
  } => {
    const leave = drawn(b) !== null && (a !== b || fixed(b) !== null) ? b : drawn(a) !== null ? a : b;
    const section = drawn(leave);
    const at = from.get(leave);
    if (section !== null && at)
      return { section, item: leave, changes: [{ do: 'without', section, items: [at] }] };
    return { section: fixed(leave), item: leave, changes: [{ do: 'remove', keys: [leave] }] };
  };
  return metTwice(quiz, holding.items)
    .filter((m) => m.chance >= RARELY)
    .map(({ items: pair, because, chance }) => {
      const [a, b] = pair.map((id) => nameOf(items.get(id)!));
      const params = { first: a!, other: b!, because: BECAUSE[because], percent: percentOf(chance) };
      const severity = because === 'near' || chance < 0.05 ? 'note' : 'warning';
      return { finding: finding('met-twice', severity, {}, params), ...remedy(pair) };
    });
}
const BECAUSE: Readonly<Record<MetTwice['because'], string>> = {
  same: 'the same question',
  near: 'nearly the same question',
  family: 'the same exercise with other numbers',
};
/** In words that are no truer than they look. */
const percentOf = (chance: number): string =>
  chance > 1 - 1e-9 ? '100' : chance < 0.01 ? 'less than 1' : String(Math.min(99, Math.round(chance * 100)));

/** Minutes by which the expected time may go beyond what there is. */
const SLACK = 1.1;

function settings({ draft, outlook }: Situation): Hazard[] {
  const { passMark, timeLimitMinutes } = draft.settings;
  const out: Hazard[] = [];
  const { least } = outlook.points;
  if (passMark !== null && outlook.items > 0 && passMark > least + 1e-9)
    out.push(
      whole(finding('pass-mark-above-total', 'error', {}, { mark: passMark, points: least }), [
        { do: 'settings', to: { passMark: least } },
      ]),
    );
  const needs = Math.ceil(outlook.minutes);
  if (timeLimitMinutes !== null && outlook.minutes > timeLimitMinutes * SLACK)
    out.push(
      whole(
        finding('time-short', 'warning', {}, { minutes: timeLimitMinutes, needs, count: outlook.items }),
        [{ do: 'settings', to: { timeLimitMinutes: Math.ceil(needs / 5) * 5 } }],
      ),
    );
  return out;
}

/** What the checks say of the items and the quiz, with the repairs they have everywhere. */
function ofItems({ holding, draft, from }: Situation, quiz: Quiz): Hazard[] {
  const paths = new Set(holding.files.map((f) => f.path));
  const byId = new Map(holding.items.map((i) => [i.id, i]));
  const found = [...holding.items.flatMap((i) => checkItem(i, paths)), ...checkWhole(holding)].filter(
    (f) => !NOT_HERE.has(f.code),
  );
  const repairs = new Map(repairsOf(holding, found).map((r) => [r.at, r.edits]));
  return found.map((of, at): Hazard => {
    const item = of.where.node !== null && byId.has(of.where.node) ? of.where.node : null;
    const section = item === null ? null : sectionOf(draft, quiz, item);
    const edits = repairs.get(at);
    const settled = edits?.flatMap((e) => (e.op === 'settings' ? [settingsOf(e.to)] : []));
    const changes: DraftChange[] | null =
      settled && settled.length > 0
        ? settled
        : edits
          ? [{ do: 'edits', edits: [...edits] }]
          : of.code === 'key-missing' && item !== null
            ? leftOut(draft, quiz, from, item)
            : null;
    return { finding: of, section, item, changes };
  });
}

/** Settings are the draft's own: they are changed there, and not over it. */
const settingsOf = (to: { readonly attempts?: number | 'unlimited' | null | undefined }): DraftChange => ({
  do: 'settings',
  to: to.attempts === undefined ? {} : { attempts: to.attempts },
});

const sectionOf = (draft: QuizDraft, quiz: Quiz, item: string): string | null =>
  draft.sections[
    quiz.sections.findIndex((s) => s.items.some((r) => r.item === item) || s.draw?.pool.includes(item))
  ]?.id ?? null;

/** An item that nobody can score goes out of the quiz, or out of its draw. */
function leftOut(
  draft: QuizDraft,
  quiz: Quiz,
  from: ReadonlyMap<string, ItemAt>,
  item: string,
): DraftChange[] {
  const at = from.get(item);
  return quiz.sections.flatMap((s, n): DraftChange[] => {
    if (s.items.some((r) => r.item === item)) return [{ do: 'remove', keys: [item] }];
    const section = draft.sections[n];
    return section && at && s.draw?.pool.includes(item)
      ? [{ do: 'without', section: section.id, items: [at] }]
      : [];
  });
}
