import type { Holding, Quiz } from '../model/holding.ts';
import { quizItems } from '../model/quizzes.ts';
import { selectFrom } from '../writing/select.ts';
import { shiftDates } from './dates.ts';
import { Recogniser } from './existing.ts';
import { foldName } from '../model/foldName.ts';
import { own } from '../model/own.ts';
import { proposeName } from './names.ts';
import { outlineThing } from './outline.ts';
import { grading } from './attachments.ts';
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

interface PlanOptions {
  readonly settings: SettingsChoice;
  /** ISO dates on which the terms start. */
  readonly fromTerm: string | null;
  readonly toTerm: string | null;
  readonly byPosition?: boolean;
  /** What happens to another version that is there already. */
  readonly onVersion?: 'replace' | 'keep' | 'skip';
  /** What somebody has settled already, by `landingId`. */
  readonly overrides?: Readonly<Record<string, LandingOverride>>;
}

export type LandingOverride = Partial<
  Pick<Landing, 'name' | 'section' | 'action' | 'hidden' | 'opens' | 'closes' | 'attach'>
>;

/** Names how one thing lands: overrides, what was found there, and sendings of some things refer to it. */
export const landingId = ({ kind, node }: Pick<Landing, 'kind' | 'node'>): string => `${kind} ${node}`;

/**
 * Proposes how each thing of a selection lands in a course: its name, section, fate beside what is there,
 * dates.
 */
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
    const byHand = own(options.overrides ?? {}, landingId({ kind, node: id })) ?? {};
    const action: LandingAction =
      byHand.action !== undefined
        ? byHand.action
        : existing.state === 'same'
          ? 'skip'
          : existing.state === 'version'
            ? (options.onVersion ?? 'replace')
            : existing.state === 'namesake'
              ? 'keep'
              : 'add';
    // What stays, or gives its place, does not stand in the way of its own name.
    const name =
      byHand.name !== undefined
        ? byHand.name
        : action === 'skip' && there
          ? there.title || title || kind
          : named(title, here, fallback, kind, takenFor(kind), action === 'replace' ? there : null);
    const was = {
      opens: here?.opens ?? quiz?.settings.opens ?? null,
      closes: here?.closes ?? quiz?.settings.closes ?? null,
    };
    const dates = options.settings.dates
      ? shiftDates(was, options.fromTerm, options.toTerm)
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
      ...(kind === 'quiz' ? { ...dates, was } : { opens: null, closes: null }),
      review: options.settings.review ? (here?.review ?? null) : null,
      ...byHand,
      ...(byHand.section === undefined ? {} : { sectionBy: 'hand' as const }),
      ...(kind === 'rubric'
        ? grading(id, selected, from, to, {
            chosen: byHand.attach,
            gives: action === 'replace' ? existing.there : null,
          })
        : {}),
    };
  });
}

/** How each thing of a selection stands in a file: under its own name, or the one somebody has given it. */
export function planFile(
  selected: Holding,
  from: CourseOutline,
  { settings, overrides = {} }: Pick<PlanOptions, 'settings' | 'overrides'>,
): Landing[] {
  return thingsOf(selected).map(({ kind, id, title, quiz, fallback }): Landing => {
    const here = outlineThing(from, kind, id, title);
    const { name, opens, closes } = own(overrides, landingId({ kind, node: id })) ?? {};
    const dated = kind === 'quiz' && settings.dates;
    return {
      kind,
      node: id,
      name: name ?? (title || proposeName('', [here?.title ?? null, fallback], KIND_NAMES[kind], new Set())),
      section: null,
      sectionBy: 'outside',
      existing: 'none',
      there: null,
      action: 'add',
      hidden: false,
      opens: opens !== undefined ? opens : dated ? (here?.opens ?? quiz?.settings.opens ?? null) : null,
      closes: closes !== undefined ? closes : dated ? (here?.closes ?? quiz?.settings.closes ?? null) : null,
      review: null,
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
const LOOSE_BANK = 'loose-items';

/** Items that were taken one by one land in a bank of their own. */
export function withLooseBank(selected: Holding): Holding {
  const held = new Set([...selected.quizzes.flatMap(quizItems), ...selected.banks.flatMap((b) => b.items)]);
  const loose = selected.items.map((i) => i.id).filter((id) => !held.has(id));
  if (loose.length === 0) return selected;
  const bank = { id: LOOSE_BANK, title: 'Single questions', items: loose, metadata: [], origin: null };
  return { ...selected, banks: [...selected.banks, bank] };
}

/**
 * The selection under the names and settings it is to have there: what is written, and what is later looked
 * for.
 */
export function plannedHolding(
  selected: Holding,
  landings: readonly Landing[],
  settings: SettingsChoice,
): Holding {
  const by = new Map(landings.map((l) => [landingId(l), l]));
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

/**
 * What travels: everything but what stays away, and banks that are there already where a quiz draws from
 * them.
 */
export function whatGoesOut(planned: Holding, landings: readonly Landing[]): Holding {
  const going = (kind: ThingKind): Set<string> =>
    new Set(landings.filter((l) => l.kind === kind && l.action !== 'skip').map((l) => l.node));
  return thingsAlone(planned, going);
}
