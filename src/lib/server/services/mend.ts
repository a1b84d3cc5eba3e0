import { plannedHolding, withOutline, type Holding } from '@alforja/core';
import { partsOfCourse, type Plan } from '../../shared/courses.ts';
import type { Arrival } from '../../shared/types.ts';
import type { Connector, ThingChange } from '../connectors/types.ts';
import { optionsOf } from '../jobs/plan.ts';
import { runOf } from '../jobs/run.ts';
import { lookById } from './courses.ts';
import { startRun } from './courseTransfers.ts';
import { extraKey, itemKey, missingKey } from './differences.ts';
import { packageById } from './packages.ts';
import { connectorTo } from './systems.ts';
import { parsedSent, type TransferRow } from './transfers.ts';

/** What can be done about a difference: set it there, take a thing out there, or send things again. */
export type Mend =
  | { readonly do: 'set'; readonly thing: string; readonly change: ThingChange }
  | { readonly do: 'remove'; readonly thing: string }
  | { readonly do: 'resend'; readonly nodes: readonly string[] };

/** The mend for each difference that has one, by the difference's key. */
export async function mendsOf(transfer: TransferRow, arrival: Arrival): Promise<Map<string, Mend>> {
  const out = new Map<string, Mend>();
  const { landing } = arrival;
  const tree = (await packageById(transfer.packageId))?.tree;
  if (!landing || !tree || !transfer.plan) return out;
  const { landings } = JSON.parse(transfer.plan) as Plan;
  const source = transfer.sourceSnapshot ? await lookById(transfer.sourceSnapshot) : null;
  const said: Holding = { ...tree, items: [] };
  const planned = plannedHolding(source ? withOutline(said, source.outline) : said, landings, optionsOf(transfer).settings); // prettier-ignore
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
    const quizzes = tree.quizzes.filter((q) => q.sections.some((s) => s.items.some((r) => items.has(r.item)) || (s.draw !== null && (banks.includes(s.draw.bank ?? '') || s.draw.pool.some((i) => items.has(i)))))).map((q) => q.id);
    return [...quizzes.map((q) => `quiz ${q}`), ...banks.map((b) => `bank ${b}`)].filter((k) => landings.some((l) => `${l.kind} ${l.node}` === k) && ours(k));
  }; // prettier-ignore
  const again = (key: string, nodes: readonly string[]): void => {
    if (nodes.length > 0) out.set(key, { do: 'resend', nodes });
  };

  for (const t of landing.troubles) {
    const key = `landing ${t.trouble} ${t.kind} ${t.node ?? t.thing}`;
    const plan = landings.find((l) => l.kind === t.kind && l.node === t.node);
    if (t.trouble === 'copy' || t.trouble === 'extra') {
      if (t.thing) out.set(key, { do: 'remove', thing: t.thing });
    } else if (t.trouble === 'not-there') again(key, lost.has(t.node ?? '') ? [] : [`${t.kind} ${t.node}`]);
    else if (plan && t.thing) {
      const change: ThingChange =
        t.trouble === 'name' ? { title: plan.name } : t.trouble === 'section' ? { section: plan.section } : t.trouble === 'visibility' ? { hidden: plan.hidden } : { review: plan.review }; // prettier-ignore
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
      const change = c.arrived === null ? null : changeFor(facet, c.kind === 'quiz' ? quiz : undefined, planned.banks.find((b) => b.id === c.source)?.title); // prettier-ignore
      if (change) out.set(key, { do: 'set', thing: c.arrived!, change });
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
      out.set(itemKey(pair.source), { do: 'set', thing, change: { points: [{ item: pair.arrived, points }] } }); // prettier-ignore
    else again(itemKey(pair.source), nodes);
  }
  for (const m of arrival.comparison.missing) again(missingKey(m.id), holders(new Set([m.id])));
  for (const x of arrival.comparison.extra) out.delete(extraKey(x.id));
  return out;
}

const drawersOf = (tree: Pick<Holding, 'quizzes'>, kind: string, bank: string | null): string[] =>
  kind === 'bank' ? tree.quizzes.filter((q) => q.sections.some((s) => s.draw?.bank === bank)).map((q) => `quiz ${q.id}`) : []; // prettier-ignore

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
  for (const m of merged(chosen)) {
    // What is sent again need not be set before.
    if (m.do === 'resend' || again.has(m.thing)) continue;
    try {
      await (m.do === 'set'
        ? connector.change(classId, m.thing, m.change)
        : connector.remove(classId, m.thing));
    } catch (error) {
      failed.push((error as Error).message);
    }
  }
  await startRun(transfer, nodes.length > 0 ? { only: nodes } : { checkOnly: true });
  return failed;
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
