import { partsOfCourse } from '../../shared/courses.ts';
import type { Sending } from '../../shared/transfers.ts';
import type { Connector } from '../connectors/types.ts';
import { noteOutline } from '../library/courses.ts';
import { notify } from '../library/notices.ts';
import { connectorTo } from '../library/systems.ts';
import type { Handler, JobContext } from '../runner/handler.ts';
import { many } from '../../shared/many.ts';
import { announceSubject } from '../store/news.ts';
import { changeTransfer, transferById } from '../store/transfers.ts';
import { whoDecides } from './decisions.ts';

interface Removal {
  readonly removed: string[];
  readonly refused: string[];
  /** Ids of what is still there. */
  readonly still: string[];
}

/**
 * Takes back what a transfer made in its destination, as far as that allows, and gives older things their
 * place again.
 */
export const undo: Handler = {
  waits: true,
  async run(id, job) {
    const transfer = await transferById(id);
    const sending = transfer?.sending;
    if (!transfer?.destCourse || !sending) throw new Error('There is nothing to undo.');
    const { systemId, classId } = partsOfCourse(transfer.destCourse);
    const connector = await connectorTo(systemId);
    const { things } = await connector.outline(classId);
    const names = new Map(things.map((t) => [t.id, t.title || 'one without a name']));
    const { removed, refused, still } = await removeAll(connector, classId, sending, names, job);
    await giveBack(connector, classId, sending, names);
    const undone = { at: Date.now(), by: await whoDecides(transfer), removed, refused };
    // What lists show of the course; a snapshot is taken anyway when it is opened.
    const outline = await connector.outline(classId).catch(() => null);
    if (outline) await noteOutline(transfer.destCourse, outline);
    return async (tx) => {
      await changeTransfer(tx, id, ({ sending: now, record }) =>
        now?.id === sending.id
          ? {
              sending: { ...now, created: still, setAside: [], attached: [], undone },
              record: [...record, { act: 'taken-back', ...undone }],
            }
          : null,
      );
      await announceSubject(tx, id);
      await notify(tx, {
        text:
          refused.length === 0
            ? `“${transfer.title}”: removed from the course: ${many(removed.length, 'thing')}.`
            : `“${transfer.title}” was undone, except ${many(refused.length, 'thing')}.`,
        href: `/transfers/${id}/send`,
        tone: refused.length === 0 ? 'good' : 'look',
      });
    };
  },
};

async function removeAll(
  connector: Connector,
  classId: string,
  { created }: Sending,
  names: ReadonlyMap<string, string>,
  { tell }: JobContext,
): Promise<Removal> {
  const out: Removal = { removed: [], refused: [], still: [] };
  for (const [n, thing] of created.entries()) {
    tell('Removing', n, created.length);
    try {
      if (names.has(thing)) await connector.remove(classId, thing);
      out.removed.push(names.get(thing) ?? 'one that was already gone');
    } catch (error) {
      out.refused.push((error as Error).message);
      out.still.push(thing);
    }
  }
  return out;
}

/** Older things get their name and place again, rubrics what they were attached to. */
async function giveBack(
  connector: Connector,
  classId: string,
  { setAside, attached }: Sending,
  names: ReadonlyMap<string, string>,
): Promise<void> {
  for (const { thing, title, hidden } of setAside)
    // What could not be set aside needs no place given back.
    await connector.change(classId, thing, { title, hidden }).catch((error: { status?: number }) => {
      if (error.status !== 409) throw error;
    });
  for (const { thing, before } of attached)
    if (names.has(thing)) await connector.change(classId, thing, { attachedTo: before });
}
