import { z } from 'zod';
import {
  DraftDraw,
  DraftSettings,
  FixedItem,
  freeId,
  ItemAt,
  itemKey,
  namedItems,
  newSection,
  Plan,
  sameItem,
  type BankDraft,
  type DraftSection,
  type QuizDraft,
} from './draft.ts';

/**
 * What can be done to a quiz that is being made. Hands on the screen, plans and repairs all do the same things, so
 * that each of them can be taken back alike.
 */
const id = z.string().min(1).max(2000);
const at = z.number().int().nonnegative();

export const DraftChange = z.discriminatedUnion('do', [
  z.object({ do: z.literal('title'), to: z.string().max(500) }),
  z.object({ do: z.literal('settings'), to: DraftSettings.partial() }),
  z.object({ do: z.literal('plan'), to: Plan }),
  /** Items by where they come from, put into a section before a place in it; at its end where none is named. */
  z.object({ do: z.literal('add'), section: id, items: z.array(ItemAt).max(5000), at: at.optional() }),
  z.object({ do: z.literal('remove'), keys: z.array(id).max(5000) }),
  z.object({ do: z.literal('move'), key: id, section: id, at }),
  z.object({ do: z.literal('points'), keys: z.array(id).max(5000), to: FixedItem.shape.points }),
  z.object({ do: z.literal('section-add'), title: z.string().max(500), draw: DraftDraw.nullable() }),
  z.object({
    do: z.literal('section'),
    section: id,
    to: z
      .object({ title: z.string().max(500), instructions: z.string().max(20_000), shuffle: z.boolean() })
      .partial(),
  }),
  z.object({ do: z.literal('section-move'), section: id, at }),
  z.object({ do: z.literal('section-drop'), section: id }),
  z.object({ do: z.literal('draw'), section: id, to: DraftDraw.partial() }),
  /** Items that a draw does not choose from any more. */
  z.object({ do: z.literal('without'), section: id, items: z.array(ItemAt).max(5000) }),
  /** Edits of what was put together. */
  z.object({ do: z.literal('edits'), edits: z.array(z.looseObject({ op: z.string() })).max(20_000) }),
]);
export type DraftChange = z.infer<typeof DraftChange>;

/** The quiz with a change made; one that is about something that is not there changes nothing. */
export function changed(draft: QuizDraft, change: DraftChange): QuizDraft {
  switch (change.do) {
    case 'title':
      return { ...draft, title: change.to };
    case 'settings':
      return { ...draft, settings: { ...draft.settings, ...given(change.to) } };
    case 'plan':
      return { ...draft, plan: change.to };
    case 'add':
      return added(draft, change);
    case 'remove': {
      const gone = new Set(change.keys);
      return eachSection(draft, (s) => ({ ...s, items: s.items.filter((i) => !gone.has(i.key)) }));
    }
    case 'move':
      return moved(draft, change);
    case 'points': {
      const those = new Set(change.keys);
      return eachSection(draft, (s) => ({
        ...s,
        items: s.items.map((i) => (those.has(i.key) ? { ...i, points: change.to } : i)),
      }));
    }
    case 'section-add': {
      const sectionId = freeId('section', new Set(draft.sections.map((s) => s.id)));
      const section = { ...newSection(sectionId, change.title), draw: change.draw };
      return { ...draft, sections: [...draft.sections, section] };
    }
    case 'section':
      return inSection(draft, change.section, (s) => ({ ...s, ...given(change.to) }));
    case 'section-move': {
      const section = draft.sections.find((s) => s.id === change.section);
      if (!section) return draft;
      const rest = draft.sections.filter((s) => s !== section);
      return { ...draft, sections: [...rest.slice(0, change.at), section, ...rest.slice(change.at)] };
    }
    case 'section-drop':
      return { ...draft, sections: draft.sections.filter((s) => s.id !== change.section) };
    case 'draw':
      return inSection(draft, change.section, (s) =>
        s.draw ? { ...s, draw: { ...s.draw, ...given(change.to) } } : s,
      );
    case 'without':
      return inSection(draft, change.section, (s) =>
        s.draw ? { ...s, draw: without(s.draw, change.items) } : s,
      );
    case 'edits':
      return { ...draft, edits: [...draft.edits, ...change.edits] };
  }
}

/** What a partial change names; `exactOptionalPropertyTypes` tells what was left out from what is undefined. */
const given = <T extends object>(to: T): { [K in keyof T]-?: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(to).filter(([, v]) => v !== undefined)) as {
    [K in keyof T]-?: Exclude<T[K], undefined>;
  };

const eachSection = (draft: QuizDraft, change: (s: DraftSection) => DraftSection): QuizDraft => ({
  ...draft,
  sections: draft.sections.map(change),
});
const inSection = (draft: QuizDraft, section: string, change: (s: DraftSection) => DraftSection): QuizDraft =>
  eachSection(draft, (s) => (s.id === section ? change(s) : s));

/** Items that do not stand there yet, each once, under keys of their own: their ids, where these are free. */
function keyed(items: readonly ItemAt[], there: readonly FixedItem[]): FixedItem[] {
  const had = new Set(there.map(itemKey));
  const keys = new Set(there.map((i) => i.key));
  return items.flatMap(({ place, item }) => {
    if (had.has(itemKey({ place, item }))) return [];
    had.add(itemKey({ place, item }));
    const key = keys.has(item) ? freeId('item', keys) : item;
    keys.add(key);
    return [{ place, item, key, points: null }];
  });
}

function added(draft: QuizDraft, change: Extract<DraftChange, { do: 'add' }>): QuizDraft {
  const items = keyed(change.items, namedItems(draft));
  return inSection(draft, change.section, (s) => {
    const to = change.at ?? s.items.length;
    return { ...s, items: [...s.items.slice(0, to), ...items, ...s.items.slice(to)] };
  });
}

function moved(draft: QuizDraft, { key, section, at }: Extract<DraftChange, { do: 'move' }>): QuizDraft {
  const item = namedItems(draft).find((i) => i.key === key);
  if (!item || !draft.sections.some((s) => s.id === section)) return draft;
  const rest = eachSection(draft, (s) => ({ ...s, items: s.items.filter((i) => i.key !== key) }));
  return inSection(rest, section, (s) => ({
    ...s,
    items: [...s.items.slice(0, at), item, ...s.items.slice(at)],
  }));
}

/** A draw that does not choose from some items: those named one by one go, others are left out of their banks. */
function without(draw: DraftDraw, items: readonly ItemAt[]): DraftDraw {
  const { pool } = draw;
  const named = pool.named.filter((n) => !items.some((i) => sameItem(i, n)));
  const left = [...pool.without, ...items.filter((i) => !pool.without.some((w) => sameItem(w, i)))];
  return { ...draw, pool: { ...pool, named, without: left } };
}

/** A bank with further items at its end; those it has already are passed over. */
export const withItems = (draft: BankDraft, items: readonly ItemAt[]): BankDraft => ({
  ...draft,
  items: [...draft.items, ...keyed(items, draft.items)],
});
