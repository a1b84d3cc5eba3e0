import type { Draw, Item, Quiz, QuizSettings, Section } from '../../model/holding.ts';
import {
  inOwnDraw,
  instructionsOf,
  quizItems,
  shufflesChoices,
  shufflesIn,
  shufflesItems,
} from '../../model/quizzes.ts';
import type { ContentNode } from '../../model/content.ts';
import { interactionsOf, isInteraction, mapLists } from '../../model/visit.ts';
import { fixedDraw } from '../../fit/draws.ts';
import type { Editing } from '../editing.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import type { SettingsEdit } from '../schema.ts';
import type { WholeOperation } from './operation.ts';

/** A section by its place, counted from 0, its title or its id. */
export function sectionAt(quiz: Quiz, named: string | number): number | Refused {
  const known = quiz.sections.map((s, at) => s.title || String(at)).join(', ');
  if (typeof named === 'number')
    return named < quiz.sections.length ? named : refused('section-unknown', { section: named, known });
  const byTitle = quiz.sections.flatMap((s, at) => (s.title === named ? [at] : []));
  if (byTitle.length === 1) return byTitle[0]!;
  const byId = quiz.sections.findIndex((s) => s.id === named);
  return byId >= 0 ? byId : refused('section-unknown', { section: named, known });
}

export const withSection = (quiz: Quiz, at: number, change: Partial<Section>): Quiz => ({
  ...quiz,
  sections: quiz.sections.map((s, n) => (n === at ? { ...s, ...change } : s)),
});

/** A quiz and one of its sections, as an edit names them. */
export function sectionOf(
  editing: Editing,
  node: string,
  named: string | number,
): { quiz: Quiz; at: number; section: Section } | Refused {
  const quiz = editing.quiz(node);
  if (isRefused(quiz)) return quiz;
  const at = sectionAt(quiz, named);
  return isRefused(at) ? at : { quiz, at, section: quiz.sections[at]! };
}

type Settings = QuizSettings;

/** Of the settings that an edit names, what they are. */
const named = (settings: Settings, to: SettingsEdit): Partial<Settings> =>
  Object.fromEntries(Object.keys(to).map((key) => [key, settings[key as keyof Settings]]));

export const SETTINGS: WholeOperation<'settings'> = {
  on: 'whole',
  now: (editing, { node, to }) => {
    const quiz = editing.quiz(node);
    if (isRefused(quiz)) return quiz;
    return named({ ...quiz.settings, instructions: instructionsOf(quiz) }, to);
  },
  wanted: (edit) => edit.to,
  apply: (editing, { node, to }) => {
    const quiz = editing.quizzes.get(node)!;
    const { opens = quiz.settings.opens, closes = quiz.settings.closes } = to;
    if ((to.opens ?? to.closes) && opens && closes && Date.parse(closes) <= Date.parse(opens))
      return refused('dates-order');
    const { shuffleItems, shuffleChoices, instructions, ...plain } = to;
    let next: Quiz = { ...quiz, settings: { ...quiz.settings, ...plain } as Settings };
    if (instructions !== undefined)
      next = {
        ...next,
        settings: { ...next.settings, instructions: instructions === '' ? null : instructions },
        // What sections say for themselves is part of what is replaced.
        sections: next.sections.map((s) => (s.instructions === null ? s : { ...s, instructions: null })),
      };
    if (shuffleItems !== undefined)
      next = { ...next, sections: next.sections.map((s) => ({ ...s, shuffle: shuffleItems })) };
    if (shuffleChoices !== undefined) shuffleAll(editing, quiz, shuffleChoices);
    const settings = {
      ...next.settings,
      shuffleItems: shufflesItems(next.sections),
      shuffleChoices: shufflesChoices(next, shufflesIn(editing.items)),
    };
    editing.quizzes.set(node, { ...next, settings });
    return undefined;
  },
};

function shuffleAll(editing: Editing, quiz: Quiz, to: boolean): void {
  const list = (nodes: readonly ContentNode[]): ContentNode[] =>
    nodes.map((given) => {
      const node = mapLists(given, list);
      return isInteraction(node) && node.kind === 'choice' && node.shuffle !== to
        ? { ...node, shuffle: to }
        : node;
    });
  for (const id of new Set(quizItems(quiz))) {
    const item = editing.items.get(id);
    if (item) editing.items.set(id, { ...item, body: list(item.body) });
  }
}

export const DRAW: WholeOperation<'draw'> = {
  on: 'whole',
  now: (editing, { node, section, to }) => {
    const found = sectionOf(editing, node, section);
    if (isRefused(found)) return found;
    const { draw } = found.section;
    if (!draw) return to.pool ? null : refused('draw-none', { section });
    return {
      ...(to.pick === undefined ? {} : { pick: draw.pick }),
      ...(to.pointsEach === undefined ? {} : { pointsEach: draw.pointsEach }),
      ...(to.pool === undefined ? {} : { pool: typeof to.pool === 'string' ? draw.bank : draw.pool }),
    };
  },
  wanted: (edit) => edit.to,
  apply: (editing, { node, section, to }) => {
    const found = sectionOf(editing, node, section);
    if (isRefused(found)) return found;
    const pool = to.pool === undefined ? null : poolOf(editing, to.pool);
    if (isRefused(pool)) return pool;
    const before = found.section.draw;
    const members = pool?.items ?? before?.pool ?? [];
    const pick = to.pick ?? Math.min(before?.pick ?? 1, members.length);
    if (pick > members.length && !before?.withReplacement)
      return refused('draw-pick', { pick, of: members.length });
    const pointsEach = to.pointsEach ?? before?.pointsEach ?? Number.NaN;
    const draw = {
      pick,
      bank: pool ? pool.bank : (before?.bank ?? null),
      pool: members,
      // Weights that gave each item the old points would give them still.
      weights: pool || to.pointsEach !== undefined ? null : (before?.weights ?? null),
      pointsEach,
      withReplacement: before?.withReplacement ?? false,
    };
    const own = found.section.items.filter((r) => !before || !inOwnDraw(found.section, r.item));
    const items = draw.bank === null ? [...own, ...members.map((item) => ({ item, weight: 1 }))] : own;
    const drawn = pool ? { draw, items } : { draw };
    editing.quizzes.set(node, withSection(found.quiz, found.at, drawn));
    editing.drawn.set(`${node}\u0001${found.section.id}`, to.pointsEach !== undefined);
    return undefined;
  },
};

function poolOf(
  editing: Editing,
  pool: string | readonly string[],
): { bank: string | null; items: readonly string[] } | Refused {
  if (typeof pool === 'string') {
    const bank = editing.bank(pool);
    return isRefused(bank) ? bank : { bank: bank.id, items: bank.items };
  }
  for (const id of pool) {
    const item = editing.item(id);
    if (isRefused(item)) return item;
  }
  return { bank: null, items: [...new Set(pool)] };
}

/** What a draw gives one seed is set to everybody. */
export const DRAW_FIX: WholeOperation<'draw-fix'> = {
  on: 'whole',
  now: (editing, { node, section }) => {
    const found = sectionOf(editing, node, section);
    if (isRefused(found)) return found;
    const { draw } = found.section;
    return draw ? drawSaid(draw) : null;
  },
  wanted: () => null,
  apply: (editing, { node, section }) => {
    const found = sectionOf(editing, node, section);
    if (isRefused(found)) return found;
    const { quiz, at, section: drawn } = found;
    const sections = quiz.sections.map((s, n) => (n === at ? fixedDraw(drawn, drawn.draw!).section : s));
    editing.quizzes.set(node, { ...quiz, sections });
    return undefined;
  },
};

/** A draw becomes several, each with its own part of the pool: one for each number of points, for one. */
export const DRAW_SPLIT: WholeOperation<'draw-split'> = {
  on: 'whole',
  now: (editing, { node, section }) => {
    const found = sectionOf(editing, node, section);
    if (isRefused(found)) return found;
    const { draw } = found.section;
    return draw ? [drawSaid(draw)] : refused('draw-none', { section });
  },
  wanted: ({ to }) => (to.length === 1 ? to.map(drawSaid) : undefined),
  apply: (editing, { node, section, to }) => {
    const found = sectionOf(editing, node, section);
    if (isRefused(found)) return found;
    const { quiz, at, section: whole } = found;
    const draw = whole.draw!;
    const pools = to.flatMap((t) => t.pool);
    const pool = new Set(draw.pool);
    const other = pools.find((id) => !pool.has(id));
    if (other !== undefined) return refused('item-not-here', { item: other });
    const tooMany = to.find((t) => t.pick > t.pool.length);
    if (tooMany) return refused('draw-pick', { pick: tooMany.pick, of: tooMany.pool.length });
    const own = whole.items.filter((r) => !inOwnDraw(whole, r.item));
    const parts = to.map(({ title, pick, pool, pointsEach }, n): Section => ({
      ...whole,
      id: n === 0 ? whole.id : `${whole.id}-${n + 1}`,
      title,
      items: [...(n === 0 ? own : []), ...pool.map((item) => ({ item, weight: 1 }))],
      instructions: n === 0 ? whole.instructions : null,
      draw: { ...draw, bank: null, pool, pick, pointsEach, weights: null },
    }));
    const sections = [...quiz.sections.slice(0, at), ...parts, ...quiz.sections.slice(at + 1)];
    editing.quizzes.set(node, { ...quiz, sections });
    return undefined;
  },
};

const drawSaid = ({ pick, pool, pointsEach }: Pick<Draw, 'pick' | 'pool' | 'pointsEach'>) => ({
  pick,
  pool,
  pointsEach,
});

export const MOVE: WholeOperation<'move'> = {
  on: 'whole',
  now: (editing, { node }) => {
    const item = editing.item(node);
    return isRefused(item) ? item : editing.banksOf(node);
  },
  wanted: (edit) => [edit.to],
  apply: (editing, { node, to }) => {
    if (!editing.banks.has(to)) return refused('bank-unknown', { bank: to });
    editing.moveInto(to, [node]);
    return undefined;
  },
};

/** Everything of a bank goes into another; draws from it are from there. */
export const MERGE: WholeOperation<'merge'> = {
  on: 'whole',
  now: (editing, { node }) => {
    const bank = editing.bank(node);
    return isRefused(bank) ? bank : bank.title;
  },
  apply: (editing, { node, to }) => {
    if (!editing.banks.has(to) || to === node) return refused('bank-unknown', { bank: to });
    editing.moveInto(to, editing.membersOf(node));
    editing.banks.delete(node);
    for (const [id, quiz] of editing.quizzes)
      if (quiz.sections.some((s) => s.draw?.bank === node))
        editing.quizzes.set(id, {
          ...quiz,
          sections: quiz.sections.map((s) =>
            s.draw?.bank === node ? { ...s, draw: { ...s.draw, bank: to } } : s,
          ),
        });
    return undefined;
  },
};

/** A bank becomes one for each category or kind; or some of its items get a bank of their own. */
export const SPLIT: WholeOperation<'split'> = {
  on: 'whole',
  now: (editing, { node }) => {
    const bank = editing.bank(node);
    return isRefused(bank) ? bank : bank.title;
  },
  apply: (editing, { node, by }) => {
    const bank = editing.banks.get(node)!;
    const members = editing.membersOf(node);
    const groups = new Map<string, string[]>();
    const chosen = new Set(typeof by === 'string' ? [] : by.items);
    for (const id of members) {
      const name =
        typeof by === 'string' ? groupOf(editing.items.get(id), by) : chosen.has(id) ? by.title : '';
      const group = groups.get(name);
      if (group) group.push(id);
      else groups.set(name, [id]);
    }
    if (typeof by !== 'string' && !groups.has(by.title))
      return refused('item-not-here', { item: by.items[0]! });
    // What has no name of its own stays where it is; else the first group does.
    const stays = groups.has('') ? '' : typeof by === 'string' ? [...groups.keys()][0]! : '';
    const leaving = [...groups].filter(([name]) => name !== stays);
    if (leaving.length === 0 || groups.size < 2) return refused('nothing-to-split');
    for (const [name, items] of leaving) {
      let n = 2;
      while (editing.banks.has(`${node}-${n}`)) n += 1;
      const id = `${node}-${n}`;
      editing.banks.set(id, {
        id,
        title: typeof by === 'string' ? [bank.title, name].filter((t) => t !== '').join(', ') : name,
        items: [],
        metadata: [],
        origin: null,
      });
      editing.moveInto(id, items);
    }
    return undefined;
  },
};

const groupOf = (item: Item | undefined, by: 'category' | 'kind'): string =>
  !item ? '' : by === 'category' ? (item.category ?? '') : (interactionsOf(item)[0]?.kind ?? '');
