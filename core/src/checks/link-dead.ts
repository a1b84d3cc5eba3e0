import { walk } from '../model/visit.ts';
import type { Check } from './check.ts';

/** A link that leads to a part of the package that is not there. */
export const linkDead: Check<'link-dead'> = {
  code: 'link-dead',
  severity: 'warning',
  item: (item, files) => {
    const dead: string[] = [];
    walk(item.body, (node) => {
      if (node.kind !== 'element' || node.name !== 'a') return;
      const href = node.attrs['href'] ?? '';
      const remote = /^(?:[a-z][a-z0-9+.-]*:|\/\/|#)/iu.test(href);
      if (href !== '' && !remote && !files.has(href)) dead.push(href);
    });
    return dead.map((href) => ({ href }));
  },
};
