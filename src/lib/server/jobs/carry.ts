import { eq } from 'drizzle-orm';
import { finding, landingKey, speak, type CourseOutline, type Landing } from '@alforja/core';
import { partsOfCourse, type Plan, type Run, type StepName } from '../../shared/courses.ts';
import { TARGET_NAMES } from '../../shared/stages.ts';
import type { Arrival, Sent, SentPart } from '../../shared/types.ts';
import type { Connector } from '../connectors/types.ts';
import { write } from '../db/client.ts';
import { transfers } from '../db/schema.ts';
import { readStored, storeBytes } from '../files.ts';
import { notify } from '../services/notices.ts';
import { connectorTo } from '../services/systems.ts';
import { settlePair } from './batchPairs.ts';
import { attachBack, compareBack, readBack } from './carryBack.ts';
import { saysHalfWay, saysParts } from './carrySays.ts';
import { JobFailure, type Handler, type JobContext } from './context.ts';
import { ensureRead, fetchLook } from './courses.ts';
import { landingOrder } from './landingOrder.ts';
import { fileName, transferOf } from './packageJobs.ts';
import { makePlan, matterOf, type Matter } from './plan.ts';
import { runOf, saveRun, withStep } from './run.ts';

type TransferRow = NonNullable<Awaited<ReturnType<typeof transferOf>>>;

/** Sendings into one course go one after the other, so that the later one sees what the earlier one has landed. */
const turns = new Map<string, Promise<unknown>>();
async function inTurn<T>(course: string, work: () => Promise<T>): Promise<T> {
  const before = turns.get(course) ?? Promise.resolve();
  const mine = before.then(work, work);
  const settled = mine.catch(() => undefined);
  turns.set(course, settled);
  return mine.finally(() => {
    if (turns.get(course) === settled) turns.delete(course);
  });
}

const sorry = (detail: string): JobFailure =>
  new JobFailure(finding('carry-failed', 'error', {}, { detail }));

/** Carries what was chosen into the destination, step by step, and proves what arrived. */
export const carry: Handler = {
  async run(subject, context) {
    const transfer = await transferOf(subject);
    if (!transfer?.destCourse || !runOf(transfer)) throw new Error('This transfer has no destination.');
    await inTurn(transfer.destCourse, () => new Carrying(subject, transfer.destCourse!, context).go());
    await ended(subject);
  },
  async failed(subject, failure) {
    const detail = String(failure.params['detail'] ?? speak(failure).message);
    const transfer = await markStopped(subject, detail);
    if (transfer && !transfer.batchId)
      await notify({
        text: `“${transfer.title}” stopped: ${detail}`,
        href: `/transfers/${subject}/send`,
        tone: 'bad',
      });
  },
  async stopped(subject) {
    await markStopped(subject, 'It was stopped by hand.');
  },
};

/** Writes down where a run stopped, and why. */
async function markStopped(subject: string, detail: string): Promise<TransferRow | null> {
  const transfer = await transferOf(subject);
  const run = transfer && runOf(transfer);
  if (!transfer || !run) return null;
  const broken = run.steps.find((s) => s.state === 'running') ?? run.steps.find((s) => s.state === 'waiting');
  const marked = broken
    ? withStep(run, broken.name, { state: 'failed', endedAt: Date.now(), says: detail })
    : run;
  await saveRun(subject, { ...marked, failure: detail, endedAt: Date.now() });
  await settlePair(subject, detail);
  return transfer;
}

async function ended(subject: string): Promise<void> {
  const transfer = (await transferOf(subject))!;
  const arrival = transfer.arrival ? (JSON.parse(transfer.arrival) as Arrival) : null;
  const troubles = arrival?.landing?.troubles.length ?? 0;
  const { verdict, counts } = arrival!.comparison;
  const good = verdict === 'intact' && troubles === 0;
  const text = good
    ? `“${transfer.title}” has arrived: ${counts.intact} questions, nothing differs.`
    : `“${transfer.title}” has arrived; some of it differs and waits for you.`;
  if (!transfer.batchId)
    await notify({ text, href: `/transfers/${subject}/arrival`, tone: good ? 'good' : 'look' });
  await settlePair(subject, null);
}

class Carrying {
  #run!: Run;
  #connector!: Connector;
  #matter: Matter | null = null;
  readonly #retried = new Set<string>();

  constructor(
    private readonly id: string,
    private readonly dest: string,
    private readonly context: JobContext,
  ) {}

  get #classId(): string {
    return partsOfCourse(this.dest).classId;
  }

  async go(): Promise<void> {
    const transfer = await this.#transfer();
    this.#run = runOf(transfer)!;
    this.#connector = await connectorTo(partsOfCourse(this.dest).systemId, (what) =>
      this.#retried.add(
        `The destination gave no answer to ${what}; it was asked again, and nothing was doubled.`,
      ),
    );
    const steps: Record<StepName, () => Promise<string>> = {
      export: () => this.#export(),
      read: () => this.#read(),
      convert: () => this.#convert(),
      upload: () => this.#upload(),
      wait: () => this.#wait(),
      back: () => this.#back(),
      attach: () => this.#attach(),
      compare: () => this.#compare(),
    };
    for (const { name, state } of this.#run.steps) {
      if (state === 'done' || state === 'passed') continue;
      this.context.signal.throwIfAborted();
      await this.#save(withStep(this.#run, name, { state: 'running', startedAt: Date.now(), says: '' }));
      const says = await steps[name]();
      const notes = [...new Set([...this.#run.notes, ...this.#retried])];
      await this.#save(withStep({ ...this.#run, notes }, name, { state: 'done', endedAt: Date.now(), says }));
    }
    await this.#save({ ...this.#run, endedAt: Date.now(), failure: null });
  }

  async #save(run: Run): Promise<void> {
    // Once it was stopped, its record is no longer this run's to write.
    this.context.signal.throwIfAborted();
    this.#run = await saveRun(this.id, run);
  }

  async #transfer(): Promise<TransferRow> {
    return (await transferOf(this.id))!;
  }

  async #matterNow(): Promise<Matter> {
    return (this.#matter ??= (await matterOf(await this.#transfer()))!);
  }

  /** Both courses as they are now: the source may have changed since, and the destination too. */
  async #export(): Promise<string> {
    const transfer = await this.#transfer();
    await this.#catchUp();
    await this.#clearForResend(transfer);
    const source = transfer.sourceCourse ? await fetchLook(transfer.sourceCourse, this.context) : null;
    const dest = await fetchLook(this.dest, this.context);
    const changed = source !== null && source.packageId !== transfer.packageId;
    // Read before the transfer speaks of it: until then there is nothing to plan with, and no page to show.
    if (source) await ensureRead(source.packageId, this.context);
    await write((tx) =>
      tx
        .update(transfers)
        .set({
          destSnapshot: dest.id,
          ...(source ? { sourceSnapshot: source.id, packageId: source.packageId } : {}),
        })
        .where(eq(transfers.id, this.id)),
    );
    this.#matter = null;
    if (changed)
      await this.#note('The source has changed since you chose; what is sent is what it holds now.');
    return source ? 'both courses as they are now' : 'the destination as it is now';
  }

  /** What an earlier run had asked for may have been done after it stopped. */
  async #catchUp(): Promise<void> {
    for (const id of this.#run.unseen) {
      const now = await this.#connector.job(id);
      const done =
        now.state === 'queued' || now.state === 'running'
          ? await this.#connector.waitFor(id, this.context.signal)
          : now;
      const created = [...new Set([...this.#run.created, ...done.created])];
      await this.#save({ ...this.#run, created, unseen: this.#run.unseen.filter((u) => u !== id) });
    }
  }

  /** What is sent again replaces what an earlier run of this transfer made; only that. */
  async #clearForResend(transfer: TransferRow): Promise<void> {
    const { only, created } = this.#run;
    const landed = transfer.arrival ? ((JSON.parse(transfer.arrival) as Arrival).landing?.landed ?? {}) : {};
    for (const node of only ?? []) {
      const thing = landed[node];
      if (thing === undefined || !created.includes(thing)) continue;
      await this.#connector.remove(this.#classId, thing).catch((error: { status?: number }) => {
        if (error.status !== 404) throw error;
      });
      await this.#save({ ...this.#run, created: this.#run.created.filter((c) => c !== thing) });
    }
  }

  async #read(): Promise<string> {
    const transfer = await this.#transfer();
    const { dest } = await this.#matterNow();
    await ensureRead(transfer.packageId, this.context);
    await ensureRead(dest.packageId, this.context);
    return 'items, keys and scoring of both';
  }

  async #convert(): Promise<string> {
    const transfer = await this.#transfer();
    const matter = await this.#matterNow();
    const { troubles, target } = await makePlan(transfer, matter, this.context);
    const landings = this.#judged((JSON.parse((await this.#transfer()).plan!) as Plan).landings);
    const standing = landings.every((l) => l.action === 'skip');
    if (troubles.length > 0 && !standing) throw sorry(`It cannot be sent like this. ${troubles.join(' ')}`);
    const { file, source, about, options, ticks } = matter;
    const asked = {
      file,
      ticks,
      outline: source?.outline ?? null,
      landings,
      options,
      target,
      takes: about.takes,
      rubrics: about.rubrics ?? null,
    };
    const { result } = await this.context.work({ kind: 'ship', asked });
    const parts: SentPart[] = [];
    for (const [at, content] of result.contents.entries()) {
      const ending = target.startsWith('cc') ? 'imscc' : 'zip';
      parts.push({
        ...(await storeBytes(content)),
        name: `${fileName(transfer.title)}${at > 0 ? `-${at + 1}` : ''}.${ending}`,
      });
    }
    if (result.rubrics)
      parts.push({
        ...(await storeBytes(result.rubrics)),
        name: `${fileName(transfer.title)}-rubrics.${about.rubrics === 'csv' ? 'csv' : 'json'}`,
      });
    const [first = { sha256: '', bytes: 0, name: '' }, ...more] = parts;
    const sent: Sent = {
      ...first,
      more,
      target,
      items: result.items,
      points: result.points,
      findings: result.findings,
      ticks,
    };
    const plan: Plan = { ...(JSON.parse((await this.#transfer()).plan!) as Plan), landings };
    await write((tx) =>
      tx
        .update(transfers)
        .set({ sent: JSON.stringify(sent), sentAt: Date.now(), plan: JSON.stringify(plan) })
        .where(eq(transfers.id, this.id)),
    );
    return saysParts(result, TARGET_NAMES[target]);
  }

  /** What this transfer has landed already is not sent again, nor what this run is not about. */
  #judged(landings: readonly Landing[]): Landing[] {
    const { created, only } = this.#run;
    return landings.map((l) => {
      const ours = l.there !== null && created.includes(l.there);
      const aside = only !== null && !only.includes(landingKey(l));
      return ours || aside ? { ...l, action: 'skip' as const } : l;
    });
  }

  async #landings(): Promise<readonly Landing[]> {
    return (JSON.parse((await this.#transfer()).plan!) as Plan).landings;
  }

  async #parts(): Promise<SentPart[]> {
    const { sha256, bytes, name, more } = JSON.parse((await this.#transfer()).sent!) as Sent;
    return sha256 === '' ? [...more] : [{ sha256, bytes, name }, ...more];
  }

  async #upload(): Promise<string> {
    const parts = await this.#parts();
    const matter = await this.#matterNow();
    const landings = await this.#landings();
    for (const [part, { sha256 }] of parts.entries()) {
      this.context.tell('Uploading', part, parts.length);
      const order = landingOrder(landings, matter, this.#run.sectionsAs);
      const opened = await this.#connector.openImport(this.#classId, order, `${this.#run.id}:${part}`);
      await this.#save({
        ...this.#run,
        imports: [...this.#run.imports.filter((i) => i.part !== part), { part, job: opened.id }],
      });
      await this.#connector.givePackage(opened.id, await readStored(sha256));
    }
    return parts.length === 0
      ? 'nothing to upload'
      : `${parts.length === 1 ? 'one package' : `${parts.length} packages`}`;
  }

  async #wait(): Promise<string> {
    const began = Date.now();
    let failed: string | null = null;
    for (const { job } of this.#run.imports) {
      const done = await this.#connector.waitFor(job, this.context.signal, (state) =>
        this.context.tell(`The destination: ${state}`, 0, 0),
      );
      await this.#save({ ...this.#run, created: [...new Set([...this.#run.created, ...done.created])] });
      if (done.state === 'failed') failed ??= done.error ?? 'it gave no reason';
    }
    const landings = await this.#landings();
    const outline = await this.#connector.outline(this.#classId);
    if (failed !== null)
      throw sorry(
        `The destination broke off: ${failed} ${saysHalfWay(landings, outline, this.#run.created)}`,
      );
    await this.#setAside(landings, outline);
    const took = Date.now() - began;
    if (took > SLOW_MS)
      await this.#note(
        `The destination took ${Math.round(took / 1000)} seconds over the import; nothing was lost by it.`,
      );
    return `${this.#run.created.length} things made there`;
  }

  /** The older one is hidden and renamed, never deleted. */
  async #setAside(landings: readonly Landing[], outline: CourseOutline): Promise<void> {
    for (const l of landings) {
      if (l.action !== 'replace' || l.there === null) continue;
      const thing = outline.things.find((t) => t.id === l.there);
      if (!thing || this.#run.setAside.some((s) => s.thing === thing.id)) continue;
      const { title, hidden } = thing;
      await this.#save({
        ...this.#run,
        setAside: [...this.#run.setAside, { thing: thing.id, title, hidden }],
      });
      // A thing that nobody can change stays as it is; that is said, and nothing else stops for it.
      await this.#connector
        .change(this.#classId, thing.id, { hidden: true, title: `${title} (older)` })
        .catch(async (error: { status?: number; message: string }) => {
          if (error.status !== 409) throw error;
          await this.#note(`The older “${title}” stands there as it was: ${error.message}`);
        });
    }
  }

  async #back(): Promise<string> {
    const landings = await this.#landings();
    const { says, note } = await readBack(this.id, this.dest, landings, this.#run.created, this.context);
    if (note) await this.#note(note);
    return says;
  }

  async #attach(): Promise<string> {
    const { created } = this.#run;
    const keep = async (thing: string, before: readonly string[]): Promise<void> => {
      const attached = this.#run.attached ?? [];
      if (!attached.some((a) => a.thing === thing))
        await this.#save({ ...this.#run, attached: [...attached, { thing, before }] });
    };
    return attachBack(
      await this.#transfer(),
      await this.#matterNow(),
      created,
      this.#connector,
      this.context,
      keep,
    );
  }

  async #compare(): Promise<string> {
    const notes = [...new Set([...this.#run.notes, ...this.#retried])];
    return compareBack(
      await this.#transfer(),
      await this.#matterNow(),
      { ...this.#run, notes },
      this.context,
    );
  }

  async #note(text: string): Promise<void> {
    await this.#save({ ...this.#run, notes: [...new Set([...this.#run.notes, text])] });
  }
}

/** A wait that people notice. */
const SLOW_MS = 2000;
