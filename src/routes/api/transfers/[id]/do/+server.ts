import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { SETTING_NAMES, TARGETS, type LandingOverride } from '@alforja/core';
import type { DifferencesMeant } from '$lib/shared/differences';
import { transferById, type Transfer } from '$lib/server/store/transfers';
import { beginSending, beginUndo } from '$lib/server/transfer/begin';
import { decide } from '$lib/server/transfer/decisions';
import { idsMeant } from '$lib/server/transfer/judged';
import { mend } from '$lib/server/transfer/mend';
import { rename, setOptions, setOverride, setTarget } from '$lib/server/transfer/plan';
import { avoidLosses } from '$lib/server/transfer/avoid';
import { startAgain } from '$lib/server/transfer/start';
import type { RequestHandler } from './$types';

const date = z.iso.datetime({ offset: true }).nullable();
const Change: z.ZodType<LandingOverride> = z
  .object({
    name: z.string().trim().min(1, 'A name cannot be empty.').max(300),
    section: z.string().nullable(),
    action: z.enum(['add', 'skip', 'replace', 'keep']),
    hidden: z.boolean(),
    opens: date,
    closes: date,
    attach: z.array(z.string()).max(100),
  })
  .partial();
const Options = z.object({
  settings: z.record(z.enum(SETTING_NAMES), z.boolean()),
  byPosition: z.boolean(),
  onVersion: z.enum(['replace', 'keep', 'skip']),
});
/** Differences by their ids, or by what they have in common. */
const Meant = z.union([
  z.object({ ids: z.array(z.string()).min(1) }),
  z.object({ sort: z.string().max(1000) }),
  z.object({ all: z.enum(['settable', 'sendable']) }),
]);

/** What can be asked of a transfer. */
const Command = z.discriminatedUnion('do', [
  z.object({ do: z.literal('send') }),
  /** Takes up a sending that stopped, with what has landed left as it is. */
  z.object({ do: z.literal('goOn'), sectionsAs: z.enum(['source', 'destination']).default('source') }),
  z.object({ do: z.literal('check') }),
  z.object({ do: z.literal('undo') }),
  z.object({
    do: z.literal('rename'),
    title: z.string().trim().min(1, 'Give the transfer a name.').max(200),
  }),
  z.object({ do: z.literal('land'), landing: z.string(), change: Change.nullable() }),
  z.object({ do: z.literal('options'), options: Options }),
  z.object({ do: z.literal('format'), target: z.enum(TARGETS, 'Choose one of the formats.').nullable() }),
  z.object({ do: z.literal('mend'), meant: Meant, compared: z.number() }),
  z.object({
    do: z.literal('decide'),
    meant: Meant,
    compared: z.number(),
    reason: z.string().trim().max(500),
  }),
  /** Makes changes that avoid losses of the forecast, by their places in it. */
  z.object({ do: z.literal('avoid'), at: z.array(z.number().int().nonnegative()).min(1), basis: z.string() }),
  z.object({ do: z.literal('elsewhere'), to: z.string() }),
]);
type Command = z.infer<typeof Command>;
type Handle<K extends Command['do']> = (
  transfer: Transfer,
  command: Extract<Command, { do: K }>,
) => Promise<object>;

const done = async (work: Promise<unknown>): Promise<object> => {
  await work;
  return {};
};
const intoCourse = ({ destCourse }: Transfer): void => {
  if (destCourse === null) error(409, 'That can be asked only of a transfer into a course.');
};

/** The differences that are meant, as long as they are those that somebody saw. */
async function meantIds(
  transfer: Transfer,
  { meant, compared }: { readonly meant: DifferencesMeant; readonly compared: number },
): Promise<string[]> {
  if (transfer.comparedAt !== compared)
    error(409, 'It has been compared again meanwhile. Look at it once more; nothing was changed.');
  return idsMeant(transfer, meant);
}

const HANDLES: { readonly [K in Command['do']]: Handle<K> } = {
  send: (t) => done(beginSending(t)),
  goOn: (t, { sectionsAs }) => done(beginSending(t, { sectionsAs })),
  check: (t) => {
    if (t.arrivedPackageId === null) error(409, 'Nothing has arrived yet.');
    return done(beginSending(t, { checkOnly: true }));
  },
  undo: async (t) => {
    intoCourse(t);
    if (!(await beginUndo(t.id))) error(409, 'It is being sent. Stop it first, then take it back.');
    return {};
  },
  rename: (t, { title }) => done(rename(t.id, title)),
  land: (t, { landing, change }) => done(setOverride(t.id, landing, change)),
  options: (t, { options }) => done(setOptions(t.id, options)),
  format: (t, { target }) => done(setTarget(t.id, target)),
  mend: async (t, command) => {
    if (!t.arrival) error(409, 'Nothing has arrived yet.');
    return { failed: await mend(t, t.arrival, await meantIds(t, command)) };
  },
  decide: async (t, command) => done(decide(t, await meantIds(t, command), command.reason)),
  avoid: async (t, { at, basis }) => {
    if (!(await avoidLosses(t, { at, basis })))
      error(409, 'The forecast has changed meanwhile. Look at it again; nothing was changed.');
    return {};
  },
  elsewhere: async (t, { to }) => {
    const id = await startAgain(t.id, to);
    if (id === null) error(409, 'That course is no longer listed.');
    return { id };
  },
};

export const POST: RequestHandler = async ({ params, request }) => {
  const body = Command.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, body.error.issues[0]!.message);
  const transfer = await transferById(params.id);
  if (!transfer) error(404, 'There is no such transfer.');
  const handle = HANDLES[body.data.do] as Handle<Command['do']>;
  return json(await handle(transfer, body.data));
};
