import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { SETTING_NAMES } from '@alforja/core';
import {
  decide,
  sendElsewhere,
  setCourseTarget,
  setOptions,
  setOverride,
  startRun,
} from '$lib/server/services/courseTransfers';
import { mend } from '$lib/server/services/mend';
import { enqueueUndo, parsedArrival, transferById } from '$lib/server/services/transfers';
import type { RequestHandler } from './$types';

const date = z.iso.datetime({ offset: true }).nullable();
const Change = z
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

/** What can be asked of a transfer into a course. */
const Command = z.discriminatedUnion('do', [
  z.object({ do: z.literal('send') }),
  /** Takes up a run that stopped, with what has landed left as it is. */
  z.object({ do: z.literal('goOn'), sectionsAs: z.enum(['source', 'destination']).default('source') }),
  z.object({ do: z.literal('check') }),
  z.object({ do: z.literal('undo') }),
  z.object({ do: z.literal('land'), key: z.string(), change: Change.nullable() }),
  z.object({ do: z.literal('options'), options: Options }),
  z.object({ do: z.literal('format'), target: z.string().nullable() }),
  z.object({ do: z.literal('mend'), keys: z.array(z.string()).min(1) }),
  z.object({ do: z.literal('decide'), keys: z.array(z.string()).min(1), reason: z.string().trim().max(500) }),
  z.object({ do: z.literal('elsewhere'), to: z.string() }),
]);

export const POST: RequestHandler = async ({ params, request }) => {
  const body = Command.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, body.error.issues[0]!.message);
  const transfer = await transferById(params.id);
  if (!transfer?.destCourse) error(404, 'There is no such transfer into a course.');
  const command = body.data;
  switch (command.do) {
    case 'send':
      await startRun(transfer);
      break;
    case 'goOn':
      await startRun(transfer, { sectionsAs: command.sectionsAs });
      break;
    case 'check':
      if (transfer.arrivedPackageId === null) error(409, 'Nothing has been sent yet.');
      await startRun(transfer, { checkOnly: true });
      break;
    case 'undo':
      if (!(await enqueueUndo(transfer.id)))
        error(409, 'It is being sent. Stop it first, then take it back.');
      break;
    case 'land':
      await setOverride(
        transfer,
        command.key,
        command.change === null ? null : JSON.parse(JSON.stringify(command.change)),
      );
      break;
    case 'options':
      await setOptions(transfer, command.options);
      break;
    case 'format':
      await setCourseTarget(transfer, command.target);
      break;
    case 'mend': {
      const arrival = parsedArrival(transfer);
      if (!arrival) error(409, 'Nothing has arrived yet.');
      return json({ failed: await mend(transfer, arrival, command.keys) });
    }
    case 'decide':
      await decide(transfer, command.keys, command.reason);
      break;
    case 'elsewhere': {
      const id = await sendElsewhere(transfer.id, command.to);
      if (id === null) error(409, 'That course is no longer in sight.');
      return json({ id });
    }
  }
  return json({});
};
