// <qti-choice-interaction response-identifier="R" max-choices="1"> becomes <choiceInteraction
// responseIdentifier="R" maxChoices="1">
import { isElement, type XmlElement } from '../../xml/tree.ts';
import { camel } from './names.ts';

/** Attributes of QTI 3 that keep their hyphens: they mean the same to every reader of HTML. */
const KEPT = /^(?:data-|aria-|xml|xsi:)/u;

type Mutable = { -readonly [K in keyof XmlElement]: XmlElement[K] };

/**
 * Gives the elements and attributes of a QTI 3 document QTI 2's names, so that one reader serves both. Raw
 * XML is cut from the document's text and stays as it was. Documents of QTI 2 are left alone.
 */
export function normaliseNames(element: XmlElement): void {
  if (element.name.startsWith('qti-')) {
    const made = element as Mutable;
    made.name = camel(element.name.slice('qti-'.length));
    made.attrs = Object.fromEntries(
      Object.entries(element.attrs).map(([key, value]) => [KEPT.test(key) ? key : camel(key), value]),
    );
  }
  for (const node of element.children) if (isElement(node)) normaliseNames(node);
}
