// <questestinterop><assessment/> or <section/> or <item/> or <objectbank/> in any mixture</questestinterop>
import { isElement } from '../../xml/tree.ts';
import { attrOf } from '../../xml/attrs.ts';
import { emptyDraft, originOfHolder, report, type Draft, type DocumentContext } from '../draft.ts';
import { itemAt } from './item.ts';
import { readAssessment, readBank, readSection } from './quiz.ts';

/** Reads a QTI 1.2 document (ASI XML Binding 1.2), with or without the cartridge profile. */
export function readQti12(context: DocumentContext): Draft {
  const draft = emptyDraft();
  for (const element of context.document.root.children.filter(isElement)) {
    switch (element.name) {
      case 'assessment':
        readAssessment(element, context, draft);
        break;
      case 'objectbank':
        readBank(element, context, draft);
        break;
      case 'item':
        draft.items.push(...itemAt(element, context));
        break;
      case 'section': {
        // A section on its own is a named set of items: a bank.
        const rawId = attrOf(element, 'ident') || 'section';
        const sections = readSection(element, context, draft, '');
        draft.banks.push({
          id: context.claim('bank', rawId),
          rawId,
          title: attrOf(element, 'title') || context.resourceTitle,
          refs: sections.flatMap((s) => s.refs),
          sections,
          metadata: [],
          origin: originOfHolder(context, element),
          path: context.path,
        });
        break;
      }
      case 'qticomment':
        break;
      default:
        report(context, element, 'opaque-content', 'warning', { what: `<${element.name}>` });
    }
  }
  return draft;
}
