import { make, writeHolding, type Link } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { LibraryResource, LibraryView } from '../../shared/libraries.ts';
import { MAX_UPLOAD } from '../config.ts';
import { inside } from '../connectors/door.ts';
import { LibraryConnector } from '../connectors/resourceSearch.ts';
import { seal, unseal } from '../connectors/secret.ts';
import { write } from '../store/database.ts';
import { storeBytes } from '../store/files.ts';
import { keepLibrary, libraryById, listLibraries, removeLibrary } from '../store/libraries.ts';
import { bringIn } from './packages.ts';

/** Publishers' libraries: found, their banks brought in, their links made a package that lands like any other. */

/** Something cannot be had from a library, in words for people. */
export class LibraryTrouble extends Error {}

export const librariesConnected = async (): Promise<LibraryView[]> =>
  (await listLibraries()).map(({ id, name, address }) => ({ id, name, address }));

/** Connects a library after asking it for a resource. @returns its id @throws ConnectorError */
export async function connectLibrary(address: string, token: string): Promise<string> {
  const { name } = await new LibraryConnector({ name: address, address, token, inside }).about();
  return write((tx) => keepLibrary(tx, { name, address, token: seal(token) }));
}

/** Takes a connection away; what was brought from it stays. */
export const disconnectLibrary = (id: string): Promise<unknown> => write((tx) => removeLibrary(tx, id));

async function connectorOf(id: string): Promise<LibraryConnector> {
  const library = await libraryById(id);
  if (!library) throw new LibraryTrouble('That library is no longer connected.');
  const { name, address, token } = library;
  return new LibraryConnector({ name, address, token: unseal(token), inside });
}

/** What a library has, by any of its words. @throws ConnectorError, LibraryTrouble */
export const searchLibrary = async (id: string, words: string): Promise<LibraryResource[]> =>
  (await connectorOf(id)).search(words);

/** Resources of a library by their ids, as it lists them now; what is gone is left out. */
export async function resourcesNamed(id: string, ids: readonly string[]): Promise<LibraryResource[]> {
  const all = new Map((await searchLibrary(id, '')).map((r) => [r.id, r]));
  return ids.flatMap((one) => all.get(one) ?? []);
}

/** What a file is called here: by its chapter, so that what has no title of its own is known by that. */
function fileName({ position, chapter, name, url }: LibraryResource): string {
  const ending = /\.[a-z0-9]{2,5}$/iu.exec(new URL(url).pathname)?.[0] ?? '';
  const number = String(position).padStart(2, '0');
  const said = position > 0 ? `Chapter ${number} ${chapter}` : name;
  return `${said.trim().replace(/[\\/:*?"<>|]+/gu, ' ')}${ending}`;
}

/** Brings the file of a resource in. @returns the package's id @throws ConnectorError, LibraryTrouble */
export async function takeResource(id: string, resource: string): Promise<string> {
  const [found] = await resourcesNamed(id, [resource]);
  if (!found || (found.form !== 'cartridge' && found.form !== 'document'))
    throw new LibraryTrouble('The library does not offer that any more.');
  const bytes = await (await connectorOf(id)).download(found, MAX_UPLOAD);
  return (await bringIn(fileName(found), await storeBytes(bytes))).package.id;
}

/** Makes a package of links, a folder a book. @returns its id @throws LibraryTrouble where there are none */
export async function packLinks(id: string, ids: readonly string[]): Promise<string> {
  const found = (await resourcesNamed(id, ids)).filter((r) => r.form === 'web' || r.form === 'lti');
  const [first] = found;
  if (!first) throw new LibraryTrouble('None of these is a link.');
  const links = found.map((r, at): Link => ({
    id: `link-${at + 1}`,
    title: r.chapter === '' ? r.name : `${r.name}: ${r.chapter}`,
    kind: r.form === 'lti' ? 'lti' : 'web',
    url: r.url,
    xml: null,
  }));
  const title = first.book?.title ?? first.name;
  const outline = [
    {
      id: 'book',
      title,
      refers: null,
      children: links.map((l) => ({ id: `at-${l.id}`, title: l.title, refers: l.id, children: [] })),
    },
  ];
  const { packages } = writeHolding(
    make.holding({ title, links, outline }),
    'cc1.3',
    () => null,
    nodePlatform,
  );
  const name = `${title}, ${links.length === 1 ? '1 link' : `${links.length} links`}.imscc`;
  return (await bringIn(name, await storeBytes(packages[0]!), 'made')).package.id;
}
