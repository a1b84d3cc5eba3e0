import type { Item } from '../model/holding.ts';
import { interactionsOf } from '../model/visit.ts';

/**
 * One word for how an item is answered; `choices` are several answers, `none` is no interaction, `several`
 * are several kinds.
 */
export function kindOf(item: Pick<Item, 'body' | 'responses'>): string {
  const kinds = interactionsOf(item).map((i) => {
    const response = item.responses.find((r) => r.id === i.responseId);
    switch (i.kind) {
      case 'choice':
        return response?.cardinality === 'multiple' ? 'choices' : 'choice';
      case 'textEntry':
        return response?.baseType === 'float' || response?.baseType === 'integer' ? 'number' : 'text';
      case 'extendedText':
        return 'essay';
      default:
        return i.kind;
    }
  });
  const distinct = [...new Set(kinds)];
  return distinct.length === 0 ? 'none' : distinct.length === 1 ? distinct[0]! : 'several';
}
