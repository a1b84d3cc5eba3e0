import { choicesOf } from '../model/options.ts';
import { literalsOf } from '../scoring/literals.ts';
import { choiceIds } from '../scoring/probe.ts';
import type { Check } from './check.ts';

/** The scoring names a choice that is not there. */
export const keyUnknownChoice: Check<'key-unknown-choice'> = {
  code: 'key-unknown-choice',
  severity: 'error',
  item: (item) => {
    if (choicesOf(item).length === 0) return [];
    const literals = literalsOf(item);
    return item.responses.flatMap((response) => {
      const ids = choiceIds(item, response.id);
      if (ids.length === 0) return [];
      const unknown = [...new Set(literals.get(response.id)!.values.map(String))].filter(
        (v) => !ids.includes(v),
      );
      return unknown.map((choice) => ({ choice, response: response.id }));
    });
  },
};
