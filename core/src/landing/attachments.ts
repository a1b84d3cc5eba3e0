import { foldName } from '../model/foldName.ts';
import type { Holding } from '../model/holding.ts';
import { gradedWorth } from '../model/rubric.ts';
import { nameOf as itemName } from '../model/plainText.ts';
import { troubleWith, type Landed, type Trouble } from './trouble.ts';
import type { CourseOutline, HeldRubric, Landing, Side } from './types.ts';

/** What somebody sees of an attachment: the name of the item or thing that a rubric grades. */
type NameOf = (id: string) => string;

/** What a course calls one of its things or assignments; null where it has none of that id. */
export const outlineName = (outline: CourseOutline, id: string): string | null =>
  [...outline.things, ...(outline.assignments ?? [])].find((t) => t.id === id)?.title || null;

/**
 * What a rubric is to grade in the destination. What goes along carries its attachment. Beside that it is
 * attached to what somebody has chosen there; until then to the assignment that is named like the one it
 * grades in the source, and to what the rubric graded that makes way for it.
 * @param gives id of the rubric of the destination that makes way
 */
export function grading(
  id: string,
  selected: Holding,
  from: CourseOutline,
  to: Side,
  { chosen, gives }: { readonly chosen: readonly string[] | undefined; readonly gives: string | null },
): Pick<Landing, 'worth' | 'carries' | 'attach' | 'unmet'> {
  const rubric = selected.rubrics.find((r) => r.id === id)!;
  const worth = gradedWorth(rubric);
  const on = rubric.attachedTo;
  const carries = on.flatMap((a) => {
    const item = selected.items.find((i) => i.id === a);
    return item ? [itemName(item)] : selected.quizzes.filter((q) => q.id === a).map((q) => q.title);
  });
  if (chosen !== undefined) return { worth, carries, attach: chosen };
  const source = from.rubrics?.find((r) => r.rubric.id === id)?.rubric.attachedTo ?? [];
  const graded = (from.assignments ?? []).filter((a) => source.includes(a.id));
  const named = graded.map((a) => ({
    title: a.title,
    there: (to.outline.assignments ?? []).filter((b) => foldName(a.title) === foldName(b.title)),
  }));
  const found = named.flatMap(({ there }) => (there.length === 1 ? [there[0]!.id] : []));
  const unmet = named.filter(({ there }) => there.length !== 1).map(({ title }) => title);
  const older = to.holding.rubrics.find((r) => r.id === gives)?.attachedTo ?? [];
  const attach = [...new Set([...found, ...older])];
  return { worth, carries, ...(attach.length > 0 ? { attach } : {}), ...(unmet.length > 0 ? { unmet } : {}) };
}

/** A landed rubric with what it is to be attached to there. */
interface PlannedAttachments {
  readonly landed: Landed;
  readonly held: HeldRubric;
  /** Ids of items and things of the destination. */
  readonly planned: readonly string[];
}

/**
 * What each rubric is to be attached to at the destination: the items that answer to those of the source, and
 * those that somebody has chosen there. What the source has attached to things that do not travel is not
 * planned.
 * @param arrivedAs id in the destination by id in the source, of items and of quizzes
 */
export function plannedAttachments(
  landed: readonly Landed[],
  rubrics: Holding['rubrics'],
  outline: CourseOutline,
  arrivedAs: ReadonlyMap<string, string>,
): PlannedAttachments[] {
  return landed.flatMap((l): PlannedAttachments[] => {
    if (l.landing.kind !== 'rubric') return [];
    const held = outline.rubrics?.find((r) => r.rubric.id === l.thing?.id);
    if (!held) return [];
    const own = rubrics.find((r) => r.id === l.landing.node)?.attachedTo ?? [];
    const there = own.flatMap((id) => arrivedAs.get(id) ?? []);
    return [{ landed: l, held, planned: [...new Set([...there, ...(l.landing.attach ?? [])])] }];
  });
}

/** Rubrics that hang on nothing, or on less than was planned, and copies that nobody can change. */
export function checkAttachments(planned: readonly PlannedAttachments[], nameOf: NameOf): Trouble[] {
  const out: Trouble[] = [];
  for (const { landed, held, planned: wanted } of planned) {
    const { landing, thing } = landed;
    const about = {
      kind: 'rubric' as const,
      node: landing.node,
      thing: thing?.id ?? null,
      name: landing.name,
    };
    const has = held.rubric.attachedTo;
    const named = (ids: readonly string[]) => ({ to: ids.map(nameOf) });
    if (wanted.some((id) => !has.includes(id)))
      out.push(troubleWith(about, 'attachment', named(wanted), named(has)));
    if (held.locked && landing.action !== 'skip')
      out.push(troubleWith(about, 'locked', { locked: false }, { locked: true }));
  }
  return out;
}
