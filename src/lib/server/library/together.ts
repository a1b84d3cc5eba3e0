import type { PackageListing } from '../../shared/types.ts';
import { MAX_UPLOAD } from '../config.ts';
import { write } from '../store/database.ts';
import { storeBytes } from '../store/files.ts';
import { markParts, packageFile, packageListing } from '../store/packages.ts';
import { bringIn } from './packages.ts';
import { worked } from './worked.ts';

/** Several files that belong together, the chapters of a book for instance, taken as one source. */

/** They cannot be one, in words for people. */
export class BindingTrouble extends Error {}

/** What is known of files by now, in the order they were named; what is gone is left out. */
export async function filesNamed(ids: readonly string[]): Promise<PackageListing[]> {
  const found = await Promise.all(ids.map((id) => packageListing(id)));
  return found.flatMap((held) => held ?? []);
}

/**
 * Makes one source of several files; the files stay as they came, and are listed as parts of it from now on.
 * @returns its id; null where one of them is gone
 * @throws BindingTrouble where they are too large together
 */
export async function bindTogether(ids: readonly string[], name: string): Promise<string | null> {
  const files = await Promise.all(ids.map((id) => packageFile(id)));
  if (files.some((f) => f === null)) return null;
  const named = files.map((f) => ({ name: f!.name, sha256: f!.sha256 }));
  const bytes = await worked('bind', { files: named, limit: MAX_UPLOAD }, BindingTrouble);
  const { package: held } = await bringIn(`${name}.zip`, await storeBytes(bytes));
  await write((tx) => markParts(tx, ids));
  return held.id;
}
