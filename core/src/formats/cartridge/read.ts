// <webLink xmlns="http://www.imsglobal.org/xsd/imsccv1p1/imswl_v1p1"><title>Tide tables</title><url
// href="https://…"/></webLink>
import type { Link } from '../../model/holding.ts';
import { attrOf } from '../../xml/attrs.ts';
import { child, rawXml, textOf } from '../../xml/tree.ts';
import { isActive } from '../../content/address.ts';
import { cut } from '../../model/cut.ts';
import { emptyDraft, report, type Draft, type DocumentContext } from '../draft.ts';

const inner = (context: DocumentContext, name: string): string => {
  const found = child(context.document.root, name);
  return found ? textOf(found).replace(/\s+/gu, ' ').trim() : '';
};

/**
 * Web links and LTI links of a Common Cartridge (1.0 to 1.3). Their XML is kept, so that nothing unread is
 * lost.
 */
export function readLink(kind: Link['kind'], resourceId: string, context: DocumentContext): Draft {
  const draft = emptyDraft();
  const { root } = context.document;
  const url = child(root, 'url');
  const address =
    kind === 'web'
      ? url
        ? attrOf(url, 'href')
        : ''
      : inner(context, 'secure_launch_url') || inner(context, 'launch_url');
  if (isActive(address)) {
    report(context, root, 'active-content-removed', 'warning', { what: `a link to ${cut(address, 60)}` });
    return draft;
  }
  draft.links.push({
    id: context.claim('link', resourceId || 'link'),
    title: inner(context, 'title') || context.resourceTitle,
    kind,
    url: address,
    xml: rawXml(context.document, root),
    path: context.path,
  });
  return draft;
}
