import type { Interaction } from './content.ts';

/** What people call each kind of interaction: QTI's own names are for programs. */
export const INTERACTION_NAMES: Readonly<Record<Interaction['kind'], string>> = {
  choice: 'Choice',
  order: 'Put in order',
  associate: 'Make pairs',
  match: 'Match',
  gapMatch: 'Fill the gaps from a list',
  inlineChoice: 'Choose within the text',
  textEntry: 'Short answer',
  extendedText: 'Essay',
  hottext: 'Pick words',
  hotspot: 'Pick an area',
  selectPoint: 'Point on a picture',
  graphicOrder: 'Order areas of a picture',
  graphicAssociate: 'Join areas of a picture',
  graphicGapMatch: 'Label a picture',
  positionObject: 'Place on a picture',
  slider: 'Slider',
  upload: 'Hand in a file',
  drawing: 'Drawing',
  media: 'Sound or film',
  endAttempt: 'Button',
  custom: 'A kind of its own',
};
