import type { Item, ItemFile } from '../model/holding.ts';
import { picturesOf } from '../model/options.ts';
import { interactionsOf, walk } from '../model/visit.ts';

const ADDRESS = /^(?:[a-z][a-z0-9+.-]*:|\/\/|#)/iu;

/**
 * The files an item refers to now: those it still shows, those that no text has shown, and, of the files there are,
 * those that it shows since.
 */
export function filesNow(
  item: Item,
  before: Item,
  there: { readonly has: (path: string) => boolean },
): readonly ItemFile[] {
  const [shown, were] = [addressesIn(item), addressesIn(before)];
  const kept = before.files.filter((f) => shown.has(f.path) || !were.has(f.path));
  const known = new Set(kept.map((f) => f.path));
  const more = [...shown].filter((path) => !known.has(path) && there.has(path));
  if (kept.length === before.files.length && more.length === 0) return before.files;
  return [...kept, ...more.map((path) => ({ path, present: true }))];
}

/** Addresses within the package that an item's texts and pictures lead to. */
function addressesIn(item: Item): ReadonlySet<string> {
  const found = new Set<string>();
  const texts = [
    ...item.stimuli.flatMap((s) => s.content),
    ...item.body,
    ...item.feedback.flatMap((f) => f.content),
  ];
  walk(texts, (n) => {
    if (n.kind !== 'element') return;
    for (const name of ['src', 'href', 'poster'] as const) {
      const address = n.attrs[name];
      if (address !== undefined && address !== '' && !ADDRESS.test(address)) found.add(address);
    }
  });
  for (const i of interactionsOf(item)) for (const p of picturesOf(i)) found.add(p.src);
  return found;
}
