import { ARCHIVES } from './archives.ts';
import { DOCUMENTS } from './documents.ts';
import type { Hostile } from './hostile.ts';
import { SCORING, TESTS } from './scoring.ts';
import { TABLES } from './tables.ts';

export type { Hostile };
export const HOSTILE: readonly Hostile[] = [...SCORING, ...TESTS, ...ARCHIVES, ...TABLES, ...DOCUMENTS];
