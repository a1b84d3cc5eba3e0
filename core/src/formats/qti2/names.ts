/**
 * Names and namespaces of QTI 2 and 3, shared by their readers and writers. The tree is written in QTI 2's
 * names.
 */

export type QtiVersion = '2.1' | '2.2' | '3.0';

export interface Dialect {
  readonly version: QtiVersion;
  readonly namespace: string;
  readonly schema: string;
  /** Where the standard response-processing templates are said to be. */
  readonly templates: string;
  readonly package: { readonly namespace: string; readonly schema: string; readonly schemaVersion: string };
  /** Suffix of resource types: imsqti_item_xmlv2p1. */
  readonly resources: string;
  /** Elements as qti-…, attributes with hyphens. */
  readonly hyphenated: boolean;
}

const CP = 'http://www.imsglobal.org/xsd/imscp_v1p1';

export const DIALECTS: Readonly<Record<QtiVersion, Dialect>> = {
  '2.1': {
    version: '2.1',
    namespace: 'http://www.imsglobal.org/xsd/imsqti_v2p1',
    schema: 'http://www.imsglobal.org/xsd/qti/qtiv2p1/imsqti_v2p1.xsd',
    templates: 'http://www.imsglobal.org/question/qti_v2p1/rptemplates/',
    package: { namespace: CP, schema: 'QTIv2.1 Package', schemaVersion: '1.0.0' },
    resources: 'v2p1',
    hyphenated: false,
  },
  '2.2': {
    version: '2.2',
    namespace: 'http://www.imsglobal.org/xsd/imsqti_v2p2',
    schema: 'http://www.imsglobal.org/xsd/qti/qtiv2p2/imsqti_v2p2.xsd',
    templates: 'http://www.imsglobal.org/question/qti_v2p1/rptemplates/',
    package: { namespace: CP, schema: 'QTIv2.2 Package', schemaVersion: '1.0.0' },
    resources: 'v2p2',
    hyphenated: false,
  },
  '3.0': {
    version: '3.0',
    namespace: 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0',
    schema: 'https://purl.imsglobal.org/spec/qti/v3p0/schema/xsd/imsqti_asiv3p0_v1p0.xsd',
    templates: 'https://purl.imsglobal.org/spec/qti/v3p0/rptemplates/',
    package: {
      namespace: 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1',
      schema: 'QTI Package',
      schemaVersion: '3.0.0',
    },
    resources: 'v3p0',
    hyphenated: true,
  },
};

export const MATHML_NAMESPACE = 'http://www.w3.org/1998/Math/MathML';
export const LOM_NAMESPACE = 'http://ltsc.ieee.org/xsd/LOM';

/** Hyphenated names that do not turn into QTI 2's by rule. */
const IRREGULAR: Readonly<Record<string, string>> = {
  'duration-lt': 'durationLT',
  'duration-gte': 'durationGTE',
};
const IRREGULAR_BACK = Object.fromEntries(Object.entries(IRREGULAR).map(([a, b]) => [b, a]));

export const camel = (name: string): string =>
  Object.hasOwn(IRREGULAR, name)
    ? IRREGULAR[name]!
    : name.replace(/-([a-z0-9])/gu, (_, c: string) => c.toUpperCase());

/** choiceInteraction -> choice-interaction */
export const hyphens = (name: string): string =>
  Object.hasOwn(IRREGULAR_BACK, name)
    ? IRREGULAR_BACK[name]!
    : name.replace(/[A-Z]/gu, (c) => `-${c.toLowerCase()}`);
