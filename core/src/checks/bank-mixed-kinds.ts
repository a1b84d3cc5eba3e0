import type { Check } from './check.ts';

/** A bank of several kinds of question: worth a look before one draws from it. */
export const bankMixedKinds: Check<'bank-mixed-kinds'> = {
  code: 'bank-mixed-kinds',
  severity: 'note',
  whole: ({ banks, items }, asked) => {
    const byId = new Map(items.map((i) => [i.id, i]));
    return banks.flatMap((bank) => {
      const counts = new Map<string, number>();
      for (const id of bank.items) {
        const item = byId.get(id);
        const kind = item && asked(item).kind;
        if (kind) counts.set(kind, (counts.get(kind) ?? 0) + 1);
      }
      if (counts.size < 2) return [];
      const said = [...counts]
        .sort((a, b) => b[1] - a[1])
        .map(([kind, n]) => `${n} ${kind}`)
        .join(', ');
      return [{ node: bank.id, path: bank.origin?.path ?? null, params: { said } }];
    });
  },
};
