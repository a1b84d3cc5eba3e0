import { stemText } from '../model/plainText.ts';
import { walk } from '../model/visit.ts';
import type { Check } from './check.ts';

/** Nothing is asked: no words and no picture before the answers. */
export const stemEmpty: Check<'stem-empty'> = {
  code: 'stem-empty',
  severity: 'warning',
  item: (item) => {
    if (/[^_\s]/u.test(stemText(item))) return [];
    let shown = false;
    walk(item.body, (node) => {
      if (node.kind === 'math' || node.kind === 'custom' || node.kind === 'opaque') shown = true;
      if (node.kind === 'element' && ['img', 'audio', 'video'].includes(node.name)) shown = true;
    });
    return shown ? [] : [{}];
  },
};
