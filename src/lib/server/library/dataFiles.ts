import type { DataPeep } from '../../shared/types.ts';
import { worked } from './worked.ts';

/** A file of a package cannot be shown, in words for people. */
export class FileTrouble extends Error {}

/** Bytes of a file of a package; null where it has none of that name. @throws FileTrouble */
export const packageFileBytes = (packageId: string, path: string): Promise<Uint8Array | null> =>
  worked('file', { packageId, path }, FileTrouble);

/** The first rows of a file of data; null where there is no such file. @throws FileTrouble */
export const peepAt = (packageId: string, path: string): Promise<DataPeep | null> =>
  worked('peep', { packageId, path }, FileTrouble);
