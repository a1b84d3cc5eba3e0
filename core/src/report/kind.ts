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

/** What people call each kind. */
export const KIND_NAMES: Readonly<Record<string, string>> = {
  choice: 'one answer',
  choices: 'several answers',
  text: 'short answer',
  number: 'number',
  essay: 'essay',
  order: 'put in order',
  associate: 'make pairs',
  match: 'match',
  gapMatch: 'fill the gaps from a list',
  inlineChoice: 'choose within the text',
  hottext: 'pick words',
  hotspot: 'pick an area',
  selectPoint: 'point at a place',
  graphicOrder: 'order areas',
  graphicAssociate: 'join areas',
  graphicGapMatch: 'label a picture',
  positionObject: 'place on a picture',
  slider: 'slider',
  upload: 'hand in a file',
  drawing: 'drawing',
  media: 'sound or film',
  endAttempt: 'button',
  several: 'several parts',
  custom: 'kind of its own',
  none: 'text only',
};
