import { interactionsOf, walk } from '../model/visit.ts';
import { picturesOf } from '../model/options.ts';
import type { Check } from './check.ts';

/**
 * A picture without words for those who cannot see it (WCAG 2.2, 1.1.1). An empty text says that it is
 * decoration.
 */
export const imageAltMissing: Check<'image-alt-missing'> = {
  code: 'image-alt-missing',
  severity: 'note',
  item: (item) => {
    const found: string[] = [];
    walk([...item.stimuli.flatMap((s) => s.content), ...item.body], (node) => {
      if (node.kind === 'element' && node.name === 'img' && node.attrs['alt'] === undefined)
        found.push(node.attrs['src'] ?? '');
    });
    for (const interaction of interactionsOf(item))
      for (const picture of picturesOf(interaction)) if (picture.alt === '') found.push(picture.src);
    return found.map((src) => ({ file: src.startsWith('data:') ? 'embedded' : src.split('/').pop()! }));
  },
};
