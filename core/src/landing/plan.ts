import type { Holding, OutlineNode, Quiz } from '../model/holding.ts';
import { quizItems } from '../model/quizItems.ts';
import { selectFrom } from '../writing/select.ts';
import { dateTrouble, shiftDates } from './dates.ts';
import { Recogniser } from './existing.ts';
import { foldName } from '../model/foldName.ts';
import { proposeName } from './names.ts';
import { grading } from './rubrics.ts';
import { matchSections } from './sections.ts';
import type {
  CourseOutline,
  CourseThing,
  Landing,
  LandingAction,
  SettingsChoice,
  Side,
  ThingKind,
} from './types.ts';

export interface PlanOptions {
  readonly settings: SettingsChoice;
  /** ISO dates on which the terms start. */
  readonly fromTerm: string | null;
  readonly toTerm: string | null;
  readonly byPosition?: boolean;
  /** What happens to another version that is there already. */
  readonly onVersion?: 'replace' | 'keep' | 'skip';
  /** What somebody has settled already, by `landingKey`. */
  readonly overrides?: Readonly<Record<string, LandingOverride>>;
}

export type LandingOverride = Partial<
  Pick<Landing, 'name' | 'section' | 'action' | 'hidden' | 'opens' | 'closes' | 'attach'>
>;
export const landingKey = (l: Pick<Landing, 'kind' | 'node'>): string => `${l.kind} ${l.node}`;

/** Proposes how each thing of a selection lands in a course: its name, section, fate beside what is there, dates. */
export function planLanding(
  selected: Holding,
  from: CourseOutline,
  to: Side,
  options: PlanOptions,
): Landing[] {
  const recogniser = new Recogniser(selected, to.holding);
  const sections = matchSections(from.sections, to.outline.sections, {
    byPosition: options.byPosition ?? false,
  });
  const taken = new Map<ThingKind, Set<string>>();
  const takenFor = (kind: ThingKind): Set<string> => {
    const names =
      taken.get(kind) ??
      new Set(to.outline.things.filter((t) => t.kind === kind).map((t) => foldName(t.title)));
    taken.set(kind, names);
    return names;
  };
  return thingsOf(selected).map(({ kind, id, title, quiz, fallback }): Landing => {
    const here = outlineThing(from, kind, id, title);
    const placed = here?.section ? sections.get(here.section) : undefined;
    const existing = recogniser.find(kind, id);
    const there = to.outline.things.find((t) => t.id === existing.there) ?? null;
    const own = options.overrides?.[landingKey({ kind, node: id })] ?? {};
    const action: LandingAction =
      own.action !== undefined
        ? own.action
        : existing.state === 'same'
          ? 'skip'
          : existing.state === 'version'
            ? (options.onVersion ?? 'replace')
            : existing.state === 'namesake'
              ? 'keep'
              : 'add';
    // What stays, or gives its place, does not stand in the way of its own name.
    const name =
      own.name !== undefined
        ? own.name
        : action === 'skip' && there
          ? there.title || title || kind
          : named(title, here, fallback, kind, takenFor(kind), action === 'replace' ? there : null);
    const dates = options.settings.dates
      ? shiftDates(
          {
            opens: here?.opens ?? quiz?.settings.opens ?? null,
            closes: here?.closes ?? quiz?.settings.closes ?? null,
          },
          options.fromTerm,
          options.toTerm,
        )
      : { opens: null, closes: null };
    return {
      kind,
      node: id,
      name,
      section: placed?.section ?? null,
      sectionBy:
        placed?.by ??
        (kind === 'bank' || kind === 'rubric' || (here !== null && here.section === null)
          ? 'outside'
          : 'none'),
      existing: existing.state,
      there: existing.there,
      action,
      hidden: options.settings.visibility ? (here?.hidden ?? true) : kind === 'quiz',
      ...(kind === 'quiz' ? dates : { opens: null, closes: null }),
      review: options.settings.review ? (here?.review ?? null) : null,
      ...own,
      ...(own.section === undefined ? {} : { sectionBy: 'hand' as const }),
      ...(kind === 'rubric'
        ? grading(id, selected, from, to, {
            chosen: own.attach,
            gives: action === 'replace' ? existing.there : null,
          })
        : {}),
    };
  });
}

/** What a thing is called that has no name at all. */
const KIND_NAMES: Readonly<Record<ThingKind, string>> = {
  quiz: 'Quiz',
  bank: 'Question bank',
  link: 'Link',
  rubric: 'Rubric',
};

function named(
  title: string,
  here: CourseThing | null,
  fallback: string | null,
  kind: ThingKind,
  taken: Set<string>,
  giving: CourseThing | null,
): string {
  if (giving) taken.delete(foldName(giving.title));
  return proposeName(title, [here?.title ?? null, fallback], KIND_NAMES[kind], taken);
}

interface Thing {
  readonly kind: ThingKind;
  readonly id: string;
  readonly title: string;
  readonly quiz: Quiz | null;
  /** What a nameless thing may be called after: the chapter of its items. */
  readonly fallback: string | null;
}

export function thingsOf(holding: Holding): Thing[] {
  const category = new Map(holding.items.map((i) => [i.id, i.category]));
  return [
    ...holding.quizzes.map((q): Thing => ({
      kind: 'quiz',
      id: q.id,
      title: q.title,
      quiz: q,
      fallback: q.sections.find((s) => s.title)?.title ?? null,
    })),
    ...holding.banks.map((b): Thing => ({
      kind: 'bank',
      id: b.id,
      title: b.title,
      quiz: null,
      fallback: b.items.map((i) => category.get(i)).find((c) => c) ?? null,
    })),
    ...holding.links.map((l): Thing => ({
      kind: 'link',
      id: l.id,
      title: l.title,
      quiz: null,
      fallback: l.url,
    })),
    ...holding.rubrics.map((r): Thing => ({
      kind: 'rubric',
      id: r.id,
      title: r.title,
      quiz: null,
      fallback: r.criteria[0]?.title ?? null,
    })),
  ];
}

/** The bank that items of no quiz and no bank land in. */
export const LOOSE_BANK = 'loose-items';

/** Items that were taken one by one land in a bank of their own. */
export function withLooseBank(selected: Holding): Holding {
  const held = new Set([...selected.quizzes.flatMap(quizItems), ...selected.banks.flatMap((b) => b.items)]);
  const loose = selected.items.map((i) => i.id).filter((id) => !held.has(id));
  if (loose.length === 0) return selected;
  const bank = { id: LOOSE_BANK, title: 'Single questions', items: loose, metadata: [], origin: null };
  return { ...selected, banks: [...selected.banks, bank] };
}

/** The outline that a package itself shows: its top folders are the sections. */
export function outlineOfPackage(
  holding: Pick<Holding, 'outline' | 'quizzes' | 'banks' | 'links' | 'rubrics'>,
): CourseOutline {
  const sectionOf = new Map<string, string>();
  const note = (nodes: readonly OutlineNode[], section: string): void => {
    for (const n of nodes) {
      if (n.refers !== null) sectionOf.set(n.refers, section);
      note(n.children, section);
    }
  };
  const folders = holding.outline.filter((n) => n.children.length > 0);
  for (const f of folders) note(f.children, f.id);
  const thing = (kind: ThingKind, x: { id: string; title: string }, quiz: Quiz | null): CourseThing => ({
    id: x.id,
    kind,
    title: x.title,
    section: sectionOf.get(x.id) ?? null,
    hidden: true,
    opens: quiz?.settings.opens ?? null,
    closes: quiz?.settings.closes ?? null,
    instructions: quiz?.settings.instructions ?? null,
    attempts: quiz?.settings.attempts ?? null,
    timeLimitMinutes: quiz?.settings.timeLimitMinutes ?? null,
    passMark: quiz?.settings.passMark ?? null,
    review: null,
    items: 0,
    points: 0,
    openAttempts: 0,
  });
  return {
    sections: folders.map((f) => ({ id: f.id, name: f.title })),
    // Quizzes and links that stand in no folder have no section to go by, and are not listed.
    things: [
      ...holding.quizzes.filter((q) => sectionOf.has(q.id)).map((q) => thing('quiz', q, q)),
      ...holding.banks.map((b) => thing('bank', b, null)),
      ...holding.rubrics.map((r) => thing('rubric', r, null)),
      ...holding.links.filter((l) => sectionOf.has(l.id)).map((l) => thing('link', l, null)),
    ],
  };
}

/** The outline's line for a thing of a package: by identifier, else by a name that only one has. */
export function outlineThing(
  outline: CourseOutline,
  kind: ThingKind,
  id: string,
  title: string,
): CourseThing | null {
  const all = outline.things.filter((t) => t.kind === kind);
  const exact = all.find((t) => t.id === id);
  if (exact) return exact;
  const named = all.filter((t) => foldName(t.title) === foldName(title));
  return named.length === 1 ? named[0]! : null;
}

/** The selection under the names and settings it is to have there: what is written, and what is later looked for. */
export function plannedHolding(
  selected: Holding,
  landings: readonly Landing[],
  settings: SettingsChoice,
): Holding {
  const by = new Map(landings.map((l) => [landingKey(l), l]));
  const name = (kind: ThingKind, id: string, title: string): string => by.get(`${kind} ${id}`)?.name ?? title;
  return {
    ...selected,
    quizzes: selected.quizzes.map((q) => {
      const landing = by.get(`quiz ${q.id}`);
      return {
        ...q,
        title: name('quiz', q.id, q.title),
        settings: {
          ...q.settings,
          opens: landing?.opens ?? null,
          closes: landing?.closes ?? null,
          attempts: settings.attempts ? q.settings.attempts : null,
          timeLimitMinutes: settings.timeLimit ? q.settings.timeLimitMinutes : null,
          passMark: settings.passMark ? q.settings.passMark : null,
          instructions: settings.instructions ? q.settings.instructions : null,
        },
        sections: settings.instructions ? q.sections : q.sections.map((s) => ({ ...s, instructions: null })),
      };
    }),
    banks: selected.banks.map((b) => ({ ...b, title: name('bank', b.id, b.title) })),
    links: selected.links.map((l) => ({ ...l, title: name('link', l.id, l.title) })),
    rubrics: selected.rubrics.map((r) => ({ ...r, title: name('rubric', r.id, r.title) })),
  };
}

/** What a plan cannot be sent with, in words. */
export function planTroubles(landings: readonly Landing[], outline: CourseOutline): string[] {
  const out: string[] = [];
  const going = landings.filter((l) => l.action !== 'skip');
  const names = new Map<string, number>();
  for (const l of going) {
    const key = `${l.kind} ${foldName(l.name)}`;
    names.set(key, (names.get(key) ?? 0) + 1);
    if (l.name.trim() === '') out.push(`A ${l.kind} has no name.`);
    const dates = dateTrouble(l);
    if (dates === 'equal' || dates === 'reversed')
      out.push(
        `“${l.name}” would close ${dates === 'equal' ? 'at the moment it opens' : 'before it opens'}.`,
      );
    if (l.section === null && l.sectionBy === 'none' && outline.sections.length > 0)
      out.push(`“${l.name}” has no section there yet: choose one.`);
    if (l.section !== null && !outline.sections.some((s) => s.id === l.section))
      out.push(`“${l.name}” is to land in a section that is no longer there.`);
    const sitting = outline.things.find(
      (t) =>
        t.kind === l.kind &&
        foldName(t.title) === foldName(l.name) &&
        !(l.action === 'replace' && t.id === l.there),
    );
    if (sitting) out.push(`The name “${l.name}” is taken in that course.`);
  }
  for (const [key, count] of names)
    if (count > 1) out.push(`The name “${key.slice(key.indexOf(' ') + 1)}” is given ${count} times.`);
  return [...new Set(out)];
}

/** Of a holding these things, and no rubric beside those named. */
export function thingsAlone(holding: Holding, keep: (kind: ThingKind) => ReadonlySet<string>): Holding {
  const rubrics = keep('rubric');
  return selectFrom(holding, {
    quizzes: keep('quiz'),
    banks: keep('bank'),
    links: keep('link'),
    items: new Set(),
    rubrics,
    withoutRubrics: new Set(holding.rubrics.map((r) => r.id).filter((id) => !rubrics.has(id))),
  }).holding;
}

/** What travels: everything but what stays away, and banks that are there already where a quiz draws from them. */
export function shipmentOf(planned: Holding, landings: readonly Landing[]): Holding {
  const going = (kind: ThingKind): Set<string> =>
    new Set(landings.filter((l) => l.kind === kind && l.action !== 'skip').map((l) => l.node));
  return thingsAlone(planned, going);
}
