import { eq } from 'drizzle-orm';
import { plannedHolding, type Holding, type Rubric } from '@alforja/core';
import { partsOfCourse, type Plan, type SystemAbout } from '../../shared/courses.ts';
import type { Arrival } from '../../shared/types.ts';
import type { Connector, ThingChange } from '../connectors/types.ts';
import { write } from '../db/client.ts';
import { transfers } from '../db/schema.ts';
import { optionsOf } from '../jobs/plan.ts';
import { runOf, saveRun } from '../jobs/run.ts';
import { sourceTree } from './contents.ts';
import { startRun } from './courseTransfers.ts';
import { extraKey, itemKey, missingKey } from './differences.ts';
import { connectorTo, systemById } from './systems.ts';
import { parsedSent, transferById, type TransferRow } from './transfers.ts';

/** What can be done about a difference: set it there, take a thing out there, send things again, or make a rubric anew. */
export type Mend =
  | { readonly do: 'set'; readonly thing: string; readonly change: ThingChange }
  | { readonly do: 'remove'; readonly thing: string }
  | { readonly do: 'resend'; readonly nodes: readonly string[] }
  /** A rubric of its own in place of a copy that is locked, altered or attached to nothing. */
  | {
      readonly do: 'renew';
      readonly thing: string;
      readonly rubric: Rubric;
      readonly attachedTo: readonly string[];
    };

/** The mend for each difference that has one, by the difference's key. */
export async function mendsOf(transfer: TransferRow, arrival: Arrival): Promise<Map<string, Mend>> {
  const out = new Map<string, Mend>();
  const { landing } = arrival;
  const tree = await sourceTree(transfer);
  if (!landing || !tree || !transfer.plan) return out;
  const { landings } = JSON.parse(transfer.plan) as Plan;
  const planned = plannedHolding({ ...tree, items: [] }, landings, optionsOf(transfer).settings);
  const created = new Set(runOf(transfer)?.created ?? []);
  /** What the format has no place for does not come by being sent again. */
  const lost = new Set(
    (parsedSent(transfer)?.findings ?? []).flatMap((f) => (f.code === 'loss-link' ? [f.where.node] : [])),
  );
  const thingOf = new Map(Object.entries(landing.landed));
  const ours = (key: string): boolean => !thingOf.has(key) || created.has(thingOf.get(key)!);
  /** Quizzes and banks that hold an item, of those that this transfer made; quizzes that draw from such a bank come too. */
  const holders = (items: ReadonlySet<string>): string[] => {
    const banks = tree.banks.filter((b) => b.items.some((i) => items.has(i))).map((b) => b.id);
    const quizzes = tree.quizzes
      .filter((q) =>
        q.sections.some(
          (s) =>
            s.items.some((r) => items.has(r.item)) ||
            (s.draw !== null && (banks.includes(s.draw.bank ?? '') || s.draw.pool.some((i) => items.has(i)))),
        ),
      )
      .map((q) => q.id);
    return [...quizzes.map((q) => `quiz ${q}`), ...banks.map((b) => `bank ${b}`)].filter(
      (k) => landings.some((l) => `${l.kind} ${l.node}` === k) && ours(k),
    );
  };
  const again = (key: string, nodes: readonly string[]): void => {
    if (nodes.length > 0) out.set(key, { do: 'resend', nodes });
  };

  const renew = (key: string, node: string | null, thing: string): void => {
    const rubric = planned.rubrics.find((r) => r.id === node);
    if (rubric)
      out.set(key, { do: 'renew', thing, rubric, attachedTo: landing.attachments?.[`rubric ${node}`] ?? [] });
  };

  for (const t of landing.troubles) {
    const key = `landing ${t.trouble} ${t.kind} ${t.node ?? t.thing}`;
    const plan = landings.find((l) => l.kind === t.kind && l.node === t.node);
    if (t.trouble === 'copy' || t.trouble === 'extra') {
      if (t.thing) out.set(key, { do: 'remove', thing: t.thing });
    } else if (t.trouble === 'not-there') again(key, lost.has(t.node ?? '') ? [] : [`${t.kind} ${t.node}`]);
    else if (t.trouble === 'attachment' || t.trouble === 'locked') {
      const wanted = landing.attachments?.[`rubric ${t.node}`] ?? [];
      const has = landing.outline.rubrics?.find((r) => r.rubric.id === t.thing)?.rubric.attachedTo ?? [];
      if (t.thing && created.has(t.thing)) renew(key, t.node, t.thing);
      else if (t.thing)
        out.set(key, {
          do: 'set',
          thing: t.thing,
          change: { attachedTo: [...new Set([...has, ...wanted])] },
        });
    } else if (plan && t.thing) {
      const change: ThingChange =
        t.trouble === 'name'
          ? { title: plan.name }
          : t.trouble === 'section'
            ? { section: plan.section }
            : t.trouble === 'visibility'
              ? { hidden: plan.hidden }
              : { review: plan.review };
      out.set(key, { do: 'set', thing: t.thing, change });
    }
  }
  for (const c of arrival.comparison.containers) {
    const name = c.source ?? c.arrived ?? '';
    const node = `${c.kind} ${c.source}`;
    if (c.state === 'missing') again(`container ${c.kind} ${name}`, [node]);
    const quiz = planned.quizzes.find((q) => q.id === c.source);
    for (const { facet } of c.differences) {
      const key = `container ${c.kind} ${name} ${facet}`;
      const change =
        c.arrived === null
          ? null
          : changeFor(
              facet,
              c.kind === 'quiz' ? quiz : undefined,
              planned.banks.find((b) => b.id === c.source)?.title,
            );
      if (c.kind === 'rubric' && c.arrived !== null && created.has(c.arrived))
        renew(key, c.source, c.arrived);
      else if (change) out.set(key, { do: 'set', thing: c.arrived!, change });
      else if (ours(node)) again(key, facet === 'points' ? [] : [node, ...drawersOf(tree, c.kind, c.source)]);
    }
  }
  for (const pair of arrival.comparison.pairs) {
    if (pair.state === 'intact') continue;
    const nodes = holders(new Set([pair.source]));
    const only = pair.differences.every((d) => d.facet === 'points' || d.facet === 'scoring');
    const thing = nodes.map((n) => thingOf.get(n)).find((t) => t !== undefined);
    const points = arrival.left.find((r) => r.id === pair.source)?.points;
    if (only && thing && points && pair.differences.some((d) => d.facet === 'points'))
      out.set(itemKey(pair.source), {
        do: 'set',
        thing,
        change: { points: [{ item: pair.arrived, points }] },
      });
    else again(itemKey(pair.source), nodes);
  }
  for (const m of arrival.comparison.missing) again(missingKey(m.id), holders(new Set([m.id])));
  for (const x of arrival.comparison.extra) out.delete(extraKey(x.id));
  return out;
}

const drawersOf = (tree: Pick<Holding, 'quizzes'>, kind: string, bank: string | null): string[] =>
  kind === 'bank'
    ? tree.quizzes.filter((q) => q.sections.some((s) => s.draw?.bank === bank)).map((q) => `quiz ${q.id}`)
    : [];

function changeFor(
  facet: string,
  quiz: Holding['quizzes'][number] | undefined,
  bankTitle: string | undefined,
): ThingChange | null {
  if (!quiz) return facet === 'title' && bankTitle !== undefined ? { title: bankTitle } : null;
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

/**
 * Mends these differences, or all that can be: sets and takes out at once, then sends again what has to be.
 * @returns what could not be done, in words
 */
export async function mend(
  transfer: TransferRow,
  arrival: Arrival,
  keys: readonly string[],
): Promise<string[]> {
  const mends = await mendsOf(transfer, arrival);
  const chosen = keys.flatMap((k) => mends.get(k) ?? []);
  const { systemId, classId } = partsOfCourse(transfer.destCourse!);
  const connector: Connector = await connectorTo(systemId);
  const nodes = [...new Set(chosen.flatMap((m) => (m.do === 'resend' ? m.nodes : [])))];
  const again = new Set(nodes.flatMap((n) => arrival.landing?.landed[n] ?? []));
  const failed: string[] = [];
  const anew = await renewed(transfer, connector, chosen, failed);
  for (const m of merged(chosen)) {
    // What is sent again, or made anew, need not be set before.
    if (m.do === 'resend' || m.do === 'renew' || again.has(m.thing) || anew.has(m.thing)) continue;
    try {
      await (m.do === 'set'
        ? connector.change(classId, m.thing, m.change)
        : connector.remove(classId, m.thing));
    } catch (error) {
      failed.push((error as Error).message);
    }
  }
  await startRun(
    (await transferById(transfer.id))!,
    nodes.length > 0 ? { only: nodes } : { checkOnly: true },
  );
  return failed;
}

/**
 * Makes rubrics anew, attached again, and takes the copies they stand for out; one that cannot be taken out is said.
 * @returns the copies that gave their place
 */
async function renewed(
  transfer: TransferRow,
  connector: Connector,
  mends: readonly Mend[],
  failed: string[],
): Promise<Set<string>> {
  const { systemId, classId } = partsOfCourse(transfer.destCourse!);
  const all = new Map(mends.flatMap((m) => (m.do === 'renew' ? [[m.thing, m] as const] : [])));
  if (all.size === 0) return new Set();
  const system = await systemById(systemId);
  const form = system ? ((JSON.parse(system.about) as SystemAbout).rubrics ?? 'case1.0') : 'case1.0';
  const done = new Set<string>();
  for (const [thing, { rubric, attachedTo }] of all) {
    const run = runOf((await transferById(transfer.id))!)!;
    try {
      const id = await connector.newRubric(classId, rubric, form, attachedTo, `${run.id}:renew:${thing}`);
      await saveRun(transfer.id, { ...run, created: [...new Set([...run.created, id])] });
      await replacedInPlan(transfer.id, thing, id);
      await connector.remove(classId, thing);
      const now = runOf((await transferById(transfer.id))!)!;
      await saveRun(transfer.id, { ...now, created: now.created.filter((c) => c !== thing) });
      done.add(thing);
    } catch (error) {
      failed.push((error as Error).message);
    }
  }
  return done;
}

/** What a plan says is there already is there under a new id. */
async function replacedInPlan(id: string, from: string, to: string): Promise<void> {
  const plan = JSON.parse((await transferById(id))!.plan!) as Plan;
  const landings = plan.landings.map((l) => (l.there === from ? { ...l, there: to } : l));
  await write((tx) =>
    tx
      .update(transfers)
      .set({ plan: JSON.stringify({ ...plan, landings }) })
      .where(eq(transfers.id, id)),
  );
}

/** All changes of one thing in one. */
function merged(mends: readonly Mend[]): Mend[] {
  const sets = new Map<string, ThingChange>();
  const rest: Mend[] = [];
  for (const m of mends) {
    if (m.do !== 'set') rest.push(m);
    else {
      const before = sets.get(m.thing) ?? {};
      const points = [...(before.points ?? []), ...(m.change.points ?? [])];
      sets.set(m.thing, { ...before, ...m.change, ...(points.length > 0 ? { points } : {}) });
    }
  }
  return [...rest, ...[...sets].map(([thing, change]): Mend => ({ do: 'set', thing, change }))];
}
