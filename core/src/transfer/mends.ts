import type { ContainerReport, Facet, PairReport } from '../compare/types.ts';
import { landingId, plannedHolding } from '../landing/plan.ts';
import type { Landing, SettingsChoice, ThingKind } from '../landing/types.ts';
import type { Trouble } from '../landing/trouble.ts';
import type { Finding } from '../model/finding.ts';
import type { Quiz } from '../model/holding.ts';
import { own } from '../model/own.ts';
import { quizItems } from '../model/quizzes.ts';
import type { Rubric } from '../model/rubric.ts';
import type { Tree } from './contents.ts';
import { differencesOf, type ArrivalFacts, type DifferenceId, type Subject } from './differences.ts';
import type { Tick } from './ticks.ts';

/** What can be set on a thing that is there. */
export interface ThingChange {
  readonly title?: string;
  readonly section?: string | null;
  readonly hidden?: boolean;
  readonly opens?: string | null;
  readonly closes?: string | null;
  readonly review?: string | null;
  readonly instructions?: string | null;
  readonly attempts?: number | 'unlimited' | null;
  readonly timeLimitMinutes?: number | null;
  readonly passMark?: number | null;
  readonly points?: readonly { readonly item: string; readonly points: number }[];
  /** Items and things that a rubric is to be attached to, and nothing else. */
  readonly attachedTo?: readonly string[];
}

/** What can be done about a difference. */
export type Mend =
  /** Set it on the thing that is there. */
  | { readonly do: 'set'; readonly thing: string; readonly change: ThingChange }
  /** Take the thing out there. */
  | { readonly do: 'remove'; readonly thing: string }
  /** Send these landings of the plan again. */
  | { readonly do: 'resend'; readonly landings: readonly string[] }
  /** Write a package of these nodes alone. */
  | { readonly do: 'write'; readonly ticks: readonly Tick[] }
  /** Make a rubric of its own in place of a copy that is locked, altered or attached to nothing. */
  | {
      readonly do: 'renew';
      readonly thing: string;
      readonly rubric: Rubric;
      readonly attachedTo: readonly string[];
    };

/** What an arrival in a course states beside what differs. */
interface CourseFacts {
  /** Landing to thing of the destination. */
  readonly landed: Readonly<Record<string, string>>;
  /** Ids there that each rubric is to be attached to, by landing. */
  readonly attachments: Readonly<Record<string, readonly string[]>>;
  /** Ids of what this transfer made there. */
  readonly created: readonly string[];
}

/** The plan that an arrival is held against. */
interface PlannedFacts {
  /** The source as the transfer takes it. */
  readonly tree: Tree;
  readonly landings: readonly Landing[];
  readonly settings: SettingsChoice;
  /** What the format lost on the way, as it was named before. */
  readonly losses: readonly Finding[];
}

/**
 * The mend for each difference of a file that has one: what is missing or altered goes out once more, alone.
 */
export function fileMends(arrival: ArrivalFacts): Map<DifferenceId, Mend> {
  return new Map(
    differencesOf(arrival).flatMap(({ id, subject }): [DifferenceId, Mend][] => {
      const ticks = ticksFor(subject);
      return ticks.length > 0 ? [[id, { do: 'write', ticks }]] : [];
    }),
  );
}

function ticksFor(subject: Subject): Tick[] {
  switch (subject.about) {
    case 'item':
      if (subject.state === 'extra') return [];
      return [{ kind: 'item', nodeId: subject.state === 'altered' ? subject.pair.source : subject.item }];
    case 'family':
      return subject.family.items.map((nodeId) => ({ kind: 'item', nodeId }));
    case 'container': {
      const { kind, source } = subject.container;
      return source === null ? [] : [{ kind, nodeId: source }];
    }
    default:
      return [];
  }
}

/** The mend for each difference in a course that has one. */
export function courseMends(
  arrival: ArrivalFacts,
  plan: PlannedFacts,
  course: CourseFacts,
): Map<DifferenceId, Mend> {
  const workshop = new CourseMends(arrival, plan, course);
  return new Map(
    differencesOf(arrival).flatMap(({ id, subject }): [DifferenceId, Mend][] => {
      const mend = workshop.mendFor(subject);
      return mend ? [[id, mend]] : [];
    }),
  );
}

class CourseMends {
  readonly #planned: Tree;
  /** What each item is worth in the source. */
  readonly #points: ReadonlyMap<string, number>;
  readonly #created: ReadonlySet<string>;
  /** What the format has no place for does not come by being sent again. */
  readonly #lost: ReadonlySet<string | null>;

  constructor(
    private readonly arrival: ArrivalFacts,
    private readonly plan: PlannedFacts,
    private readonly course: CourseFacts,
  ) {
    this.#planned = plannedHolding({ ...plan.tree, items: [] }, plan.landings, plan.settings);
    this.#points = new Map(arrival.left.map((r) => [r.id, r.points]));
    this.#created = new Set(course.created);
    this.#lost = new Set(plan.losses.flatMap((f) => (f.code === 'loss-link' ? [f.where.node] : [])));
  }

  mendFor(subject: Subject): Mend | null {
    switch (subject.about) {
      case 'item':
        if (subject.state === 'altered') return this.#item(subject.pair);
        return subject.state === 'missing' ? this.#resend(this.#holders(subject.item)) : null;
      case 'family':
        return this.#resend([...new Set(subject.family.items.flatMap((i) => this.#holders(i)))]);
      case 'container':
        return subject.facet === null
          ? this.#missing(subject.container)
          : this.#facet(subject.container, subject.facet);
      case 'file':
        return null;
      case 'landing':
        return this.#landing(subject.trouble);
    }
  }

  /** Points alone can be set; whatever else differs comes right by being sent again. */
  #item({ source, arrived, differences }: PairReport): Mend | null {
    const holders = this.#holders(source);
    const onlyPoints = differences.every((d) => d.facet === 'points' || d.facet === 'scoring');
    const thing = holders.map((l) => own(this.course.landed, l)).find((t) => t !== undefined);
    const points = this.#points.get(source);
    if (onlyPoints && thing && points && differences.some((d) => d.facet === 'points'))
      return { do: 'set', thing, change: { points: [{ item: arrived, points }] } };
    return this.#resend(holders);
  }

  #missing({ kind, source, state }: ContainerReport): Mend | null {
    return state === 'missing' && source !== null ? this.#resend([landingId({ kind, node: source })]) : null;
  }

  #facet({ kind, source, arrived }: ContainerReport, facet: Facet): Mend | null {
    if (arrived === null || source === null) return null;
    if (kind === 'rubric' && this.#created.has(arrived)) return this.#renew(source, arrived);
    const change = kind === 'rubric' ? null : this.#change(kind, source, facet);
    if (change) return { do: 'set', thing: arrived, change };
    const landing = landingId({ kind, node: source });
    if (!this.#ours(landing) || facet === 'points') return null;
    return this.#resend([landing, ...(kind === 'bank' ? this.#drawers(source) : [])]);
  }

  /** What can be set on a quiz or bank so that a facet is as planned. */
  #change(kind: 'quiz' | 'bank', source: string, facet: Facet): ThingChange | null {
    if (kind === 'bank') {
      const bank = this.#planned.banks.find((b) => b.id === source);
      return facet === 'title' && bank ? { title: bank.title } : null;
    }
    const quiz = this.#planned.quizzes.find((q) => q.id === source);
    return quiz ? changeOfQuiz(quiz, facet) : null;
  }

  #landing(trouble: Trouble): Mend | null {
    const { kind, node, thing } = trouble;
    const landing = node === null ? null : landingId({ kind, node });
    const planned = this.plan.landings.find((l) => l.kind === kind && l.node === node);
    switch (trouble.trouble) {
      case 'copy':
      case 'extra':
        return thing ? { do: 'remove', thing } : null;
      case 'not-there':
        return landing === null || this.#lost.has(node) ? null : this.#resend([landing]);
      case 'attachment':
      case 'locked':
        return this.#attach(landing, node, thing);
      case 'name':
        return thing && planned ? { do: 'set', thing, change: { title: planned.name } } : null;
      case 'section':
        return thing && planned ? { do: 'set', thing, change: { section: planned.section } } : null;
      case 'visibility':
        return thing && planned ? { do: 'set', thing, change: { hidden: planned.hidden } } : null;
      case 'review':
        return thing && planned ? { do: 'set', thing, change: { review: planned.review } } : null;
    }
  }

  #attach(landing: string | null, node: string | null, thing: string | null): Mend | null {
    if (!thing) return null;
    if (this.#created.has(thing)) return node === null ? null : this.#renew(node, thing);
    const held = this.arrival.landing?.outline.rubrics?.find((r) => r.rubric.id === thing);
    const attachedTo = [...new Set([...(held?.rubric.attachedTo ?? []), ...this.#attachments(landing)])];
    return { do: 'set', thing, change: { attachedTo } };
  }

  #renew(node: string, thing: string): Mend | null {
    const rubric = this.#planned.rubrics.find((r) => r.id === node);
    const attachedTo = this.#attachments(landingId({ kind: 'rubric', node }));
    return rubric ? { do: 'renew', thing, rubric, attachedTo } : null;
  }

  #attachments(landing: string | null): readonly string[] {
    return landing === null ? [] : (own(this.course.attachments, landing) ?? []);
  }

  #resend(landings: readonly string[]): Mend | null {
    return landings.length > 0 ? { do: 'resend', landings } : null;
  }

  /** Whether a landing is this transfer's to send again: it made what is there, or nothing is. */
  #ours(landing: string): boolean {
    const thing = own(this.course.landed, landing);
    return thing === undefined || this.#created.has(thing);
  }

  /** Landings of the quizzes and banks that hold an item; quizzes that draw from such a bank come too. */
  #holders(item: string): readonly string[] {
    this.#held ??= this.#landingsByItem();
    return this.#held.get(item) ?? [];
  }

  #held: ReadonlyMap<string, readonly string[]> | null = null;

  #landingsByItem(): ReadonlyMap<string, readonly string[]> {
    const { banks, quizzes } = this.plan.tree;
    const planned = new Set(this.plan.landings.map((l) => landingId(l)));
    const by = new Map<string, string[]>();
    const hold = (landing: string, items: Iterable<string>): void => {
      if (!planned.has(landing) || !this.#ours(landing)) return;
      for (const id of new Set(items)) {
        if (by.has(id)) by.get(id)!.push(landing);
        else by.set(id, [landing]);
      }
    };
    const inBank = new Map(banks.map((b) => [b.id, b.items]));
    for (const quiz of quizzes) {
      const drawn = quiz.sections.flatMap(({ draw }) => [...(inBank.get(draw?.bank ?? '') ?? [])]);
      hold(landingId({ kind: 'quiz', node: quiz.id }), [...quizItems(quiz), ...drawn]);
    }
    for (const bank of banks) hold(landingId({ kind: 'bank', node: bank.id }), bank.items);
    return by;
  }

  /** Landings of the quizzes that draw from a bank. */
  #drawers(bank: string): string[] {
    return this.plan.tree.quizzes
      .filter((q) => q.sections.some((s) => s.draw?.bank === bank))
      .map((q) => landingId({ kind: 'quiz' satisfies ThingKind, node: q.id }));
  }
}

function changeOfQuiz(quiz: Quiz, facet: Facet): ThingChange | null {
  const { opens, closes, instructions, attempts, timeLimitMinutes, passMark } = quiz.settings;
  switch (facet) {
    case 'title':
      return { title: quiz.title };
    case 'dates':
      return { opens, closes };
    case 'instructions':
      return { instructions };
    case 'attempts':
      return { attempts };
    case 'time-limit':
      return { timeLimitMinutes };
    case 'pass-mark':
      return { passMark };
    default:
      return null;
  }
}

/** All changes of one thing in one. */
export function mergedChanges(mends: readonly Mend[]): Map<string, ThingChange> {
  const changes = new Map<string, ThingChange>();
  for (const mend of mends) {
    if (mend.do !== 'set') continue;
    const before = changes.get(mend.thing) ?? {};
    const points = [...(before.points ?? []), ...(mend.change.points ?? [])];
    changes.set(mend.thing, { ...before, ...mend.change, ...(points.length > 0 ? { points } : {}) });
  }
  return changes;
}
