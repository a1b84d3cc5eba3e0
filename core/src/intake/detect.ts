/** What an XML file is, by its root element and namespace, never by its name. */
export type DocumentKind =
  | 'manifest'
  | 'qti12'
  | 'qti2-item'
  | 'qti2-test'
  | 'qti2-section'
  | 'qti2-stimulus'
  | 'qti2-template'
  | 'weblink'
  | 'lti'
  | 'topic'
  | 'other';

export interface Detected {
  readonly kind: DocumentKind;
  /** "1.2", "2.0" … for QTI; null where the root does not tell. */
  readonly version: string | null;
}

const BY_ROOT: Readonly<Record<string, DocumentKind>> = {
  manifest: 'manifest',
  questestinterop: 'qti12',
  assessmentItem: 'qti2-item',
  assessmentTest: 'qti2-test',
  assessmentSection: 'qti2-section',
  assessmentStimulus: 'qti2-stimulus',
  responseProcessing: 'qti2-template',
  'qti-assessment-item': 'qti2-item',
  'qti-assessment-test': 'qti2-test',
  'qti-assessment-section': 'qti2-section',
  'qti-assessment-stimulus': 'qti2-stimulus',
  'qti-response-processing': 'qti2-template',
  webLink: 'weblink',
  weblink: 'weblink',
  cartridge_basiclti_link: 'lti',
  topic: 'topic',
};

const ROOT =
  /^(?:\s|<\?[\s\S]*?\?>|<!--[\s\S]*?-->|<!DOCTYPE(?:[^>[]|\[[\s\S]*?\]\s*)*>)*<([A-Za-z_][\w.-]*:)?([A-Za-z_][\w.-]*)((?:\s[^>]*)?)/u;

/** Looks at the start of a document's text. */
export function detectXml(text: string): Detected {
  const match = ROOT.exec(text.slice(0, 16_384));
  if (!match) return { kind: 'other', version: null };
  const kind = Object.hasOwn(BY_ROOT, match[2]!) ? BY_ROOT[match[2]!]! : 'other';
  return { kind, version: qtiVersion(match[2]!, match[3] ?? '') };
}

function qtiVersion(root: string, attributes: string): string | null {
  if (root === 'questestinterop') return '1.2';
  const found = /imsqti(?:asi)?_v(\d)p(\d)/u.exec(attributes);
  if (found) return `${found[1]}.${found[2]}`;
  if (root.startsWith('qti-')) return '3.0';
  return root.startsWith('assessment') ? '2.1' : null;
}
