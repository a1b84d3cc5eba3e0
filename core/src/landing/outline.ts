import { foldName } from '../model/foldName.ts';
import type { Holding, OutlineNode, Quiz } from '../model/holding.ts';
import type { CourseOutline, CourseThing, ThingKind } from './types.ts';

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
