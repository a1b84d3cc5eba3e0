import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import {
  disconnectLibrary,
  LibraryTrouble,
  packLinks,
  resourcesNamed,
  takeResource,
} from '$lib/server/library/libraries';
import { testLinks } from '$lib/server/library/links';
import { ConnectorError } from '$lib/server/connectors/types';
import { MOST_LINKS } from '$lib/shared/links';
import type { RequestHandler } from './$types';

const ids = z.array(z.string().max(500)).min(1, 'Choose something first.').max(MOST_LINKS);
const Command = z.discriminatedUnion('do', [
  z.object({ do: z.literal('take'), resource: z.string().max(500) }),
  z.object({ do: z.literal('links'), resources: ids }),
  z.object({ do: z.literal('test'), resources: ids }),
]);

/** Brings a bank of the library in, makes a package of its links, or tests them. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body = Command.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, body.error.issues[0]!.message);
  const command = body.data;
  try {
    switch (command.do) {
      case 'take':
        return json({ id: await takeResource(params.id, command.resource) });
      case 'links':
        return json({ id: await packLinks(params.id, command.resources) });
      case 'test': {
        const found = await resourcesNamed(params.id, command.resources);
        const links = found.flatMap(({ name, form, url }) =>
          form === 'web' || form === 'lti' ? [{ title: name, kind: form, url }] : [],
        );
        return json(await testLinks(links));
      }
    }
  } catch (failure) {
    if (failure instanceof ConnectorError) error(502, failure.message);
    if (failure instanceof LibraryTrouble) error(404, failure.message);
    throw failure;
  }
};

/** Takes a connection away; what it brought stays. */
export const DELETE: RequestHandler = async ({ params }) => {
  await disconnectLibrary(params.id);
  return json({});
};
