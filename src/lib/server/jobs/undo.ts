import type { Handler } from './context.ts';
import { partsOfCourse } from '../../shared/courses.ts';
import { noteOutline } from '../services/courses.ts';
import { connectorTo } from '../services/systems.ts';
import { notify } from '../services/notices.ts';
import { transferOf } from './packageJobs.ts';
import { runOf, saveRun } from './run.ts';

/** Takes back what a transfer made in its destination, as far as that allows, and gives older things their place again. */
export const undo: Handler = {
  async run(subject, { tell }) {
    const transfer = await transferOf(subject);
    const run = transfer && runOf(transfer);
    if (!transfer?.destCourse || !run) throw new Error('There is nothing to take back.');
    const { systemId, classId } = partsOfCourse(transfer.destCourse);
    const connector = await connectorTo(systemId);
    const names = new Map(
      (await connector.outline(classId)).things.map((t) => [t.id, t.title || 'one without a name']),
    );
    const removed: string[] = [];
    const refused: string[] = [];
    const still: string[] = [];
    for (const [n, thing] of run.created.entries()) {
      tell('Taking back', n, run.created.length);
      const name = names.get(thing) ?? thing;
      try {
        if (names.has(thing)) await connector.remove(classId, thing);
        removed.push(name);
      } catch (error) {
        refused.push((error as Error).message);
        still.push(thing);
      }
    }
    for (const { thing, title, hidden } of run.setAside)
      // What could not be set aside needs no place given back.
      await connector.change(classId, thing, { title, hidden }).catch((error: { status?: number }) => {
        if (error.status !== 409) throw error;
      });
    for (const { thing, before } of run.attached ?? [])
      if (names.has(thing)) await connector.change(classId, thing, { attachedTo: before });
    const undone = { at: Date.now(), removed, refused };
    await saveRun(subject, { ...run, created: still, setAside: [], attached: [], undone });
    // What lists show of the course; it is looked into again anyway when it is opened.
    const outline = await connector.outline(classId).catch(() => null);
    if (outline) await noteOutline(transfer.destCourse, outline);
    const text =
      refused.length === 0
        ? `“${transfer.title}” was taken back: ${removed.length} things.`
        : `“${transfer.title}” was taken back but for ${refused.length} things.`;
    await notify({ text, href: `/transfers/${subject}/send`, tone: refused.length === 0 ? 'good' : 'look' });
  },
  failed: async () => undefined,
};
