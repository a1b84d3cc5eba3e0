import type { Edit } from '../edit/schema.ts';
import { foldName } from '../model/foldName.ts';
import type { Holding, OutlineNode, Quiz } from '../model/holding.ts';
import { THING_KINDS, type CourseOutline, type CourseThing, type ThingKind } from './types.ts';

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

/**
 * What a course says of its things, with what edits change of it: names and settings that were put right here go
 * before what the outline says.
 * @param holding the package, as it came or as it was edited
 */
export function outlineWithEdits(
  outline: CourseOutline,
  layer: readonly Edit[],
  holding: Pick<Holding, 'quizzes' | 'banks' | 'links' | 'rubrics'>,
): CourseOutline {
  const changed = new Map<CourseThing, CourseThing>();
  const titles = titlesBefore(layer, holding);
  const change = (kind: ThingKind, node: string, to: Partial<CourseThing>): void => {
    const thing = outlineThing(outline, kind, node, titles.get(`${kind} ${node}`) ?? '');
    if (thing) changed.set(thing, { ...(changed.get(thing) ?? thing), ...to });
  };
  for (const edit of layer) {
    if (edit.op === 'title')
      for (const kind of THING_KINDS)
        if (titles.has(`${kind} ${edit.node}`) && (edit.kind ?? kind) === kind)
          change(kind, edit.node, { title: edit.to.trim() });
    if (edit.op === 'settings') {
      const { shuffleItems: _, shuffleChoices: __, ...said } = edit.to;
      change('quiz', edit.node, said as Partial<CourseThing>);
    }
  }
  return changed.size === 0
    ? outline
    : { ...outline, things: outline.things.map((t) => changed.get(t) ?? t) };
}

/** What things were called before any edit, by kind and id: the course may know them by that name only. */
function titlesBefore(
  layer: readonly Edit[],
  { quizzes, banks, links, rubrics }: Pick<Holding, 'quizzes' | 'banks' | 'links' | 'rubrics'>,
): Map<string, string> {
  const all = { quiz: quizzes, bank: banks, link: links, rubric: rubrics } as const;
  const titles = new Map(
    THING_KINDS.flatMap((kind) => all[kind].map((t): [string, string] => [`${kind} ${t.id}`, t.title])),
  );
  for (const edit of layer.toReversed())
    if (edit.op === 'title' && typeof edit.was === 'string')
      for (const kind of THING_KINDS)
        if (titles.has(`${kind} ${edit.node}`) && (edit.kind ?? kind) === kind)
          titles.set(`${kind} ${edit.node}`, edit.was);
  return titles;
}
