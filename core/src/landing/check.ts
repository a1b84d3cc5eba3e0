import type { Comparison, Facet } from '../compare/types.ts';
import type { Holding } from '../model/holding.ts';
import { foldName } from '../model/foldName.ts';
import { landingId } from './plan.ts';
import { outlineThing } from './outline.ts';
import { troubleWith, type Landed, type Trouble, type TroubleKind, type TroubleSaidOf } from './trouble.ts';
import {
  SETTING_NAMES,
  type CourseOutline,
  type CourseThing,
  type Landing,
  type SettingName,
  type SettingsChoice,
} from './types.ts';

/**
 * Which thing of the destination each landing became: told by the comparison of contents; a link by its name
 * or, failing that, by being the only new one.
 */
export function landedThings(
  landings: readonly Landing[],
  comparison: Pick<Comparison, 'containers'>,
  outline: CourseOutline,
  created: readonly string[],
): Landed[] {
  const byNode = new Map(
    comparison.containers
      .filter((c) => c.source !== null && c.arrived !== null)
      .map((c) => [`${c.kind} ${c.source}`, c.arrived!]),
  );
  const fresh = new Set(created);
  return landings.map((landing) => {
    if (landing.action === 'skip')
      return { landing, thing: outline.things.find((t) => t.id === landing.there) ?? null };
    const id = byNode.get(landingId(landing));
    const thing = outline.things.find((t) => t.id === id);
    if (thing) return { landing, thing };
    const mine = outline.things.filter((t) => t.kind === landing.kind && fresh.has(t.id));
    const named = mine.find((t) => foldName(t.title) === foldName(landing.name));
    return { landing, thing: named ?? (landing.kind === 'link' && mine.length === 1 ? mine[0]! : null) };
  });
}

/**
 * Compares where and how things stand in the destination with what was planned.
 * @param created ids of what this transfer's imports made there
 */
export function checkLanding(
  landed: readonly Landed[],
  outline: CourseOutline,
  created: readonly string[],
): Trouble[] {
  const out: Trouble[] = [];
  const sectionName = (id: string | null): string | null =>
    outline.sections.find((s) => s.id === id)?.name ?? null;
  const claimed = new Set(landed.flatMap((l) => (l.thing ? [l.thing.id] : [])));
  for (const { landing, thing } of landed) {
    const { kind, node, name } = landing;
    const add = <K extends TroubleKind>(
      trouble: K,
      planned: TroubleSaidOf[K],
      found: TroubleSaidOf[K],
    ): void =>
      void out.push(troubleWith({ kind, node, thing: thing?.id ?? null, name }, trouble, planned, found));
    if (!thing) {
      add('not-there', { there: true, title: name }, { there: false, title: name });
      continue;
    }
    if (landing.action === 'skip') continue;
    const title = thing.title.trim();
    if (title !== name.trim()) add('name', { title: name }, { title });
    if (landing.section !== null && thing.section !== landing.section)
      add('section', { section: sectionName(landing.section) }, { section: sectionName(thing.section) });
    if (thing.hidden !== landing.hidden)
      add('visibility', { hidden: landing.hidden }, { hidden: thing.hidden });
    if (landing.review !== null && thing.review !== landing.review)
      add('review', { review: landing.review }, { review: thing.review });
  }
  for (const id of created) {
    const thing = outline.things.find((t) => t.id === id);
    if (!thing || claimed.has(id)) continue;
    const twin = landed.find(
      (l) =>
        l.landing.kind === thing.kind &&
        (isCopyOf(thing.title, l.landing.name) || (l.thing !== null && isCopyOf(thing.title, l.thing.title))),
    );
    const { kind } = thing;
    const section = sectionName(thing.section);
    const about = { kind, node: twin?.landing.node ?? null, thing: id };
    const name = thing.title || (twin?.landing.name ?? 'no name');
    out.push(
      twin
        ? troubleWith({ ...about, name }, 'copy', { copies: 1, section: null }, { copies: 2, section })
        : troubleWith({ ...about, name }, 'extra', { there: false, section: null }, { there: true, section }),
    );
  }
  return out;
}

/** The same name, or the same with a mark of repetition. */
const isCopyOf = (title: string, name: string): boolean =>
  foldName(title.trimEnd().replace(/(?<!\s)\s*(?:\(\d+\)|(?<!\d)\d+|copy)$/iu, '')) ===
  foldName(name.trimEnd().replace(/(?<!\s)\s*\(\d+\)$/u, ''));

/**
 * What a package leaves unsaid about its quizzes, and the rubrics beside it, said by the outline of the
 * course it came from.
 */
export function withOutline<T extends Pick<Holding, 'quizzes' | 'banks' | 'rubrics'>>(
  holding: T,
  outline: CourseOutline,
): T {
  const held = new Set(holding.rubrics.map((r) => r.id));
  const beside = (outline.rubrics ?? []).map((r) => r.rubric).filter((r) => !held.has(r.id));
  return {
    ...holding,
    rubrics: [...holding.rubrics, ...beside],
    quizzes: holding.quizzes.map((q) => {
      const thing = outlineThing(outline, 'quiz', q.id, q.title);
      if (!thing) return q;
      return {
        ...q,
        title: thing.title,
        settings: {
          ...q.settings,
          opens: thing.opens,
          closes: thing.closes,
          attempts: thing.attempts,
          timeLimitMinutes: thing.timeLimitMinutes,
          passMark: thing.passMark,
          instructions: thing.instructions,
        },
      };
    }),
    banks: holding.banks.map((b) => ({
      ...b,
      title: outlineThing(outline, 'bank', b.id, b.title)?.title ?? b.title,
    })),
  };
}

/** Things that were asked for and that the outline shows, but that the export does not hold. */
export function leftOut(
  holding: Pick<Holding, 'quizzes' | 'banks'>,
  outline: CourseOutline,
  asked: readonly string[],
): CourseThing[] {
  const there = new Set([...holding.quizzes, ...holding.banks].map((t) => t.id));
  return outline.things.filter(
    (t) => (t.kind === 'quiz' || t.kind === 'bank') && asked.includes(t.id) && !there.has(t.id),
  );
}

const FACET_OF: Partial<Record<SettingName, Facet>> = {
  dates: 'dates',
  attempts: 'attempts',
  timeLimit: 'time-limit',
  passMark: 'pass-mark',
  instructions: 'instructions',
};

/**
 * A comparison without what the plan does not speak of: settings that were left to the destination, and the
 * name and settings of what was there before and stayed.
 */
export function asJudged(
  comparison: Comparison,
  landings: readonly Landing[],
  settings: SettingsChoice,
): Comparison {
  const left = new Set(SETTING_NAMES.filter((s) => !settings[s]).flatMap((s) => FACET_OF[s] ?? []));
  const stayed = new Set(landings.filter((l) => l.action === 'skip').map(landingId));
  const settled = new Set<Facet>([...Object.values(FACET_OF), 'title']);
  const containers = comparison.containers.map((c) => {
    if (c.source === null || c.state !== 'altered') return c;
    const there = stayed.has(`${c.kind} ${c.source}`);
    const differences = c.differences.filter((d) => !left.has(d.facet) && !(there && settled.has(d.facet)));
    return { ...c, differences, state: differences.length > 0 ? ('altered' as const) : ('intact' as const) };
  });
  const incomplete = comparison.verdict === 'incomplete';
  const { altered, extra } = comparison.counts;
  const changed = altered + extra > 0 || containers.some((c) => c.state !== 'intact');
  return { ...comparison, containers, verdict: incomplete ? 'incomplete' : changed ? 'altered' : 'intact' };
}
