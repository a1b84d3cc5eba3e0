import { buildCourse } from './buildCourse.ts';
import { FORESHORE, programme, QUAYSIDE } from './courseSpecs.ts';
import { rosterOf } from './people.ts';
import type { SystemOptions } from './types.ts';

/** The two simulated systems with their courses. */

interface SystemData {
  readonly port: number;
  readonly folder: string | null;
  /** Further pairs of courses, for whole programmes. */
  readonly programme?: { readonly pairs: number; readonly items: number };
}

/** Tokens of the demo: they open nothing but the simulated systems. */
const TOKENS = { coordinator: 'demo-coordinator', ilan: 'demo-ilan', odile: 'demo-odile' } as const;
const tokens = {
  [TOKENS.coordinator]: 'nerea',
  [TOKENS.ilan]: 'ilan',
  [TOKENS.odile]: 'odile',
  'demo-tomo': 'tomo',
};

/** Takes and gives cartridges with QTI 1.2. */
export function quayside({ port, folder, programme: more }: SystemData): SystemOptions {
  const specs = [...QUAYSIDE, ...(more ? programme(more.pairs, more.items) : [])];
  return {
    name: 'Quayside',
    takes: ['qti1.2', 'cc1.3', 'cc1.2', 'cc1.1'],
    gives: 'cartridge',
    rubrics: 'csv',
    roster: rosterOf(specs),
    courses: specs.map((spec) => buildCourse(spec, 'html')),
    tokens,
    port,
    folder,
  };
}

/** Takes and gives packages of QTI 2.1. */
export function foreshore({ port, folder }: SystemData): SystemOptions {
  return {
    name: 'Foreshore',
    takes: ['qti2.1'],
    gives: 'qti2.1',
    rubrics: 'case1.0',
    roster: rosterOf(FORESHORE),
    courses: FORESHORE.map((spec) => buildCourse(spec, 'xml')),
    tokens,
    port,
    folder,
  };
}
