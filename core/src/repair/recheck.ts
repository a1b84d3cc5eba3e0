import { checkItem, CHECKS, checkWhole } from '../checks/index.ts';
import { checkRubrics, RUBRIC_CHECKS } from '../checks/checkRubrics.ts';
import type { Edit } from '../edit/schema.ts';
import type { Finding } from '../model/finding.ts';
import type { Holding, Item } from '../model/holding.ts';

const OF_ITEMS = new Set(CHECKS.filter((c) => c.ofItems).map((c) => c.code));
const OF_WHOLE = new Set(CHECKS.filter((c) => !c.ofItems).map((c) => c.code));
const OF_RUBRICS: ReadonlySet<string> = new Set(Object.keys(RUBRIC_CHECKS));

/**
 * An edited holding with the findings that are true of it: what was changed is checked again, what reading said
 * stays unless an edit has dealt with it.
 * @param edits those that have been applied to `source`
 */
export function recheck(source: Holding, edited: Holding, edits: readonly Edit[]): Holding {
  const before = new Map(source.items.map((i) => [i.id, i]));
  const paths = new Set(edited.files.map((f) => f.path));
  const changed = edited.items.filter((i) => before.get(i.id) !== i);
  const about = new Set(changed.map((i) => i.id));
  const still = stillSaid(edited, edits);
  const kept = source.findings.filter(
    (f) =>
      !OF_WHOLE.has(f.code) &&
      !OF_RUBRICS.has(f.code) &&
      !(OF_ITEMS.has(f.code) && f.where.node !== null && about.has(f.where.node)) &&
      still(f),
  );
  return {
    ...edited,
    findings: [
      ...kept,
      ...changed.flatMap((i) => checkItem(i, paths)),
      ...checkWhole(edited),
      ...checkRubrics(edited.rubrics),
    ],
  };
}

/** Whether what reading has said of something is still so. */
function stillSaid(edited: Holding, edits: readonly Edit[]): (found: Finding) => boolean {
  const items = new Map<string, Item>(edited.items.map((i) => [i.id, i]));
  const there = new Set([
    ...items.keys(),
    ...edited.quizzes.map((q) => q.id),
    ...edited.banks.map((b) => b.id),
    ...edited.rubrics.map((r) => r.id),
    ...edited.links.map((l) => l.id),
  ]);
  const done = new Set(edits.map((e) => `${e.op} ${e.node ?? ''}`));
  const left = new Set(edits.flatMap((e) => (e.op === 'leave-out' ? [e.node] : [])));
  return ({ code, where, params }) => {
    const { node } = where;
    if (node === null) return true;
    // Findings of manifests name resources, which are no nodes of the tree.
    if (left.has(node) && !there.has(node)) return false;
    const item = items.get(node);
    switch (code) {
      case 'points-disagree':
        return !done.has(`points ${node}`);
      case 'title-missing':
        return !done.has(`title ${node}`);
      case 'file-missing':
        return !item || item.files.some((f) => f.path === (params as { path: string }).path && !f.present);
      case 'scoring-untranslated':
      case 'template-unknown':
        return !item || item.scoring.untranslated.length > 0;
      default:
        return true;
    }
  };
}
