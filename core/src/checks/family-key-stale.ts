import { familiesOf } from '../families/families.ts';
import { staleKeys } from '../families/keys.ts';
import { plainNumber } from '../model/number.ts';
import { nameOf } from '../model/plainText.ts';
import type { Check } from './check.ts';

/** A replica whose key is not what its numbers give. */
export const familyKeyStale: Check<'family-key-stale'> = {
  code: 'family-key-stale',
  severity: 'warning',
  whole: (holding) =>
    familiesOf(holding).flatMap((family) =>
      staleKeys(family).map(({ item, key, expected, as }) => ({
        node: item.id,
        path: item.origin?.path ?? null,
        params: {
          key,
          why:
            expected !== null
              ? `as in the others it would be ${plainNumber(Number(expected.toPrecision(6)))}`
              : `it is that of “${nameOf(as!)}”, whose numbers are others`,
        },
      })),
    ),
};
