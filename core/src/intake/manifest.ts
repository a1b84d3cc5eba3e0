import { attrOf } from '../xml/attrs.ts';
import {
  child,
  descendants,
  elements,
  namespaceOf,
  textOf,
  type XmlDocument,
  type XmlElement,
} from '../xml/tree.ts';
import { cleanAddress, resolvePath } from './paths.ts';

export interface Resource {
  readonly id: string;
  readonly type: string;
  readonly title: string;
  /** Package paths; the first is the href where there is one. */
  readonly files: readonly string[];
  readonly dependencies: readonly string[];
  /** The first LOM classification entry. */
  readonly category: string | null;
  readonly line: number;
}

export interface OrganizationItem {
  readonly id: string;
  readonly title: string;
  readonly resource: string | null;
  readonly children: readonly OrganizationItem[];
}

export interface Manifest {
  readonly title: string;
  readonly schema: string;
  readonly schemaVersion: string;
  readonly namespace: string;
  readonly resources: readonly Resource[];
  readonly organization: readonly OrganizationItem[];
}

/** Reads imsmanifest.xml (IMS Content Packaging 1.1.x). `lineOf` gives the line of an offset. */
export function readManifest(document: XmlDocument, lineOf: (offset: number) => number): Manifest {
  const { root } = document;
  const metadata = child(root, 'metadata');
  const resourcesElement = child(root, 'resources');
  const base = attrOf(root, 'xml:base') + (resourcesElement ? attrOf(resourcesElement, 'xml:base') : '');
  const resources = resourcesElement
    ? elements(resourcesElement, 'resource').map((element) => readResource(element, base, lineOf))
    : [];
  const organizations = child(root, 'organizations');
  const organization = organizations ? child(organizations, 'organization') : null;
  return {
    title: (metadata ? lomTitle(metadata) : '') || (organization ? titleOf(organization) : ''),
    schema: metadata ? textIn(metadata, 'schema') : '',
    schemaVersion: metadata ? textIn(metadata, 'schemaversion') : '',
    namespace: namespaceOf(root),
    resources,
    organization: organization ? elements(organization, 'item').map((item) => readItem(item)) : [],
  };
}

function readResource(element: XmlElement, base: string, lineOf: (offset: number) => number): Resource {
  const own = base + attrOf(element, 'xml:base');
  const paths = new Set<string>();
  const add = (href: string): void => {
    if (href === '') return;
    const path = resolvePath(own, cleanAddress(href));
    if (path) paths.add(path);
  };
  // A remote href names no file of the package.
  if (!/^[a-z][a-z0-9+.-]*:\/\//iu.test(attrOf(element, 'href'))) add(attrOf(element, 'href'));
  for (const file of elements(element, 'file')) add(attrOf(file, 'href'));
  const metadata = child(element, 'metadata');
  return {
    id: attrOf(element, 'identifier'),
    type: attrOf(element, 'type'),
    title: metadata ? lomTitle(metadata) : '',
    files: [...paths],
    dependencies: elements(element, 'dependency').map((d) => attrOf(d, 'identifierref')),
    category: metadata ? classification(metadata) : null,
    line: lineOf(element.start),
  };
}

/** LOM classification/taxonPath/taxon/entry, as text. */
function classification(metadata: XmlElement): string | null {
  for (const taxon of descendants(metadata, 'taxon')) {
    const entry = child(taxon, 'entry');
    const text = entry ? textOf(entry).replace(/\s+/gu, ' ').trim() : '';
    if (text) return text;
  }
  return null;
}

function readItem(element: XmlElement): OrganizationItem {
  return {
    id: attrOf(element, 'identifier'),
    title: titleOf(element),
    resource: attrOf(element, 'identifierref') || null,
    children: elements(element, 'item').map((item) => readItem(item)),
  };
}

const titleOf = (element: XmlElement): string => textIn(element, 'title');
const textIn = (element: XmlElement, name: string): string => {
  const found = child(element, name);
  return found ? textOf(found).replace(/\s+/gu, ' ').trim() : '';
};

/** LOM keeps the title in general/title/string (or langstring, in older versions). */
function lomTitle(metadata: XmlElement): string {
  for (const general of descendants(metadata, 'general')) {
    const title = child(general, 'title');
    if (title) return textOf(title).replace(/\s+/gu, ' ').trim();
  }
  return '';
}
