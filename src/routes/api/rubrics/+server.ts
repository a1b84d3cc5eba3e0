import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import {
  copyRubric,
  keepRubrics,
  makeRubric,
  packRubrics,
  RubricTrouble,
} from '$lib/server/library/ownRubrics';
import { readAgain } from '$lib/server/library/reading';
import { readTable, rememberLayout, TableOrder } from '$lib/server/library/rubricTables';
import { packageListing } from '$lib/server/store/packages';
import type { RequestHandler } from './$types';

const Command = z.discriminatedUnion('do', [
  z.object({ do: z.literal('new') }),
  z.object({ do: z.literal('copy'), place: z.string(), rubric: z.string(), follows: z.boolean() }),
  z.object({
    do: z.literal('pack'),
    rubrics: z
      .array(z.object({ place: z.string(), rubric: z.string() }))
      .min(1)
      .max(200),
  }),
  z.object({ do: z.literal('read'), table: TableOrder }),
  z.object({
    do: z.literal('keep'),
    table: TableOrder,
    remember: z.boolean(),
    /** The file the table stands in, which is then read again. */
    package: z.string().nullable(),
  }),
]);

function refused(problem: unknown): never {
  if (problem instanceof RubricTrouble) error(409, problem.message);
  throw problem;
}

/** Makes rubrics: empty, as a copy, or from a table; or packs some for a course. */
export const POST: RequestHandler = async ({ request }) => {
  const body = Command.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, body.error.issues[0]!.message);
  const command = body.data;
  switch (command.do) {
    case 'new':
      return json({ id: await makeRubric() });
    case 'copy': {
      const id = await copyRubric(command.place, command.rubric, command.follows).catch(refused);
      if (id === null) error(404, 'There is no such rubric any more.');
      return json({ id });
    }
    case 'pack': {
      const id = await packRubrics(command.rubrics);
      if (id === null) error(404, 'One of these rubrics is no longer there.');
      return json({ package: id });
    }
    case 'read':
      return json(await readTable(command.table));
    case 'keep': {
      const { rubrics, roles, headerRow, trouble } = await readTable(command.table);
      if (trouble !== null) error(400, trouble);
      if (rubrics.length === 0) error(400, 'No row of it is a criterion yet.');
      const header = command.table.rows[headerRow];
      if (command.remember && header) await rememberLayout(header, roles);
      if (command.package !== null && command.remember && header) {
        if (!(await packageListing(command.package))) error(404, 'That file is no longer there.');
        await readAgain(command.package);
        return json({ ids: [], package: command.package });
      }
      return json({ ids: await keepRubrics(rubrics).catch(refused), package: null });
    }
  }
};
