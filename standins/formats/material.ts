import { escape } from '../../demo/qti12.ts';
import { attr, kids, text, Unknown, type Element } from './xml.ts';

/** QTI 1.2's material as HTML. @throws Unknown for what is neither text nor picture */
export function materialHtml(el: Element): string {
  return kids(el)
    .map((part) => {
      const type = attr(part, 'texttype') ?? 'text/plain';
      if (part.localName === 'mattext' && type === 'text/html') return text(part);
      if (part.localName === 'mattext' && type === 'text/plain') return escape(text(part));
      if (part.localName === 'matimage')
        return `<img src="${escape(attr(part, 'uri') ?? '')}" alt="${escape(text(part))}">`;
      throw new Unknown(part.localName ?? '');
    })
    .join('');
}
