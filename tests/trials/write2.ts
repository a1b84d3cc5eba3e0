import { Item2 } from './item2.ts';
import { Pen, type Names, type Style, type Written } from './style.ts';
import type { CourseSpec, ItemSpec } from './spec.ts';

export type Version2 = '2.1' | '2.2' | '3.0';
const NAMESPACES: Readonly<Record<Version2, string>> = {
  '2.1': 'http://www.imsglobal.org/xsd/imsqti_v2p1',
  '2.2': 'http://www.imsglobal.org/xsd/imsqti_v2p2',
  '3.0': 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0',
};
const TYPES: Readonly<Record<Version2, string>> = { '2.1': 'v2p1', '2.2': 'v2p2', '3.0': 'v3p0' };

/** Writes a course as a QTI 2 or 3 package, in a style; from the information model's own elements. */
export function write2(course: CourseSpec, style: Style, version: Version2): Written {
  const pen = new Pen(style);
  const names = new Map<string, Names>();
  const paths = new Map<string, string>();
  for (const item of course.items) {
    const writer = new Item2(item, pen);
    names.set(item.id, writer.names);
    const path = `${writer.names.item}.xml`;
    paths.set(item.id, path);
    pen.files[path] = finish(writer.write(), version);
  }
  pen.files['test.xml'] = finish(test(course, pen, names, paths), version);
  pen.files['imsmanifest.xml'] = manifest(course, pen, names, paths, version);
  return { files: pen.files, names };
}

const HTML = new Set([
  'p',
  'div',
  'b',
  'strong',
  'img',
  'ul',
  'li',
  'math',
  'mrow',
  'mfrac',
  'mi',
  'mn',
  'br',
  'span',
  'object',
]);

/** The binding's names: QTI 3 writes its elements and attributes with hyphens. */
function finish(xml: string, version: Version2): string {
  const spaced = xml.replace('NAMESPACE', NAMESPACES[version]);
  const head = '<?xml version="1.0" encoding="UTF-8"?>';
  if (version !== '3.0') return head + spaced;
  // What QTI 3 says there stands in a body of its own.
  const wrapped = spaced
    .replace(/(<(?:rubricBlock|modalFeedback|feedbackBlock)\b[^>]*>)/gu, '$1<contentBody>')
    .replace(/(<\/(?:rubricBlock|modalFeedback|feedbackBlock)>)/gu, '</contentBody>$1');
  const hyphens = (name: string): string => name.replace(/[A-Z]/gu, (c) => `-${c.toLowerCase()}`);
  return (
    head +
    wrapped.replace(
      /<(\/?)([A-Za-z]+)((?:\s+[\w:-]+="[^"]*")*)(\s*\/?)>/gu,
      (_, close: string, name: string, attrs: string, end: string) =>
        HTML.has(name)
          ? `<${close}${name}${attrs}${end}>`
          : `<${close}qti-${hyphens(name)}${attrs.replace(/(\s)([A-Za-z]+)=/gu, (__, gap: string, key: string) => `${gap}${hyphens(key)}=`)}${end}>`,
    )
  );
}

function test(
  course: CourseSpec,
  pen: Pen,
  names: ReadonlyMap<string, Names>,
  paths: ReadonlyMap<string, string>,
): string {
  const { quiz } = course;
  const instructions = quiz.instructions
    ? pen.tag('rubricBlock', { view: 'candidate' }, pen.tag('p', {}, pen.text(quiz.instructions)))
    : '';
  const sections = quiz.sections.map((section, at) =>
    pen.tag(
      'assessmentSection',
      { identifier: `s${at + 1}`, title: pen.text(section.title), visible: true },
      [
        section.pick === null ? '' : `<selection select="${section.pick}"/>`,
        section.shuffle
          ? '<ordering shuffle="true"/>'
          : pen.style.chance.maybe()
            ? '<ordering shuffle="false"/>'
            : '',
        at === 0 ? instructions : '',
        ...section.items.map((id) =>
          pen.tag('assessmentItemRef', { identifier: names.get(id)!.item, href: paths.get(id)! }),
        ),
      ].join(pen.gap()),
    ),
  );
  return pen.tag(
    'assessmentTest',
    { xmlns: 'NAMESPACE', identifier: quiz.id, title: pen.text(quiz.title) },
    [
      quiz.minutes === null ? '' : `<timeLimits maxTime="${quiz.minutes * 60}"/>`,
      `<testPart identifier="part" navigationMode="nonlinear" submissionMode="simultaneous">${quiz.attempts === null ? '' : `<itemSessionControl maxAttempts="${quiz.attempts}"/>`}${sections.join(pen.gap())}</testPart>`,
    ].join(''),
  );
}

function manifest(
  course: CourseSpec,
  pen: Pen,
  names: ReadonlyMap<string, Names>,
  paths: ReadonlyMap<string, string>,
  version: Version2,
): string {
  const resource = (item: ItemSpec): string => {
    const category = item.category
      ? `<metadata><imsmd:lom xmlns:imsmd="http://ltsc.ieee.org/xsd/LOM"><imsmd:classification><imsmd:purpose><imsmd:value>discipline</imsmd:value></imsmd:purpose><imsmd:taxonPath><imsmd:taxon><imsmd:entry><imsmd:string>${pen.text(item.category)}</imsmd:string></imsmd:entry></imsmd:taxon></imsmd:taxonPath></imsmd:classification></imsmd:lom></metadata>`
      : '';
    const path = paths.get(item.id)!;
    return `<resource identifier="r_${names.get(item.id)!.item}" type="imsqti_item_xml${TYPES[version]}" href="${path}">${category}<file href="${path}"/></resource>`;
  };
  const media = Object.keys(pen.files).filter((p) => p.startsWith('media/'));
  return `<?xml version="1.0" encoding="UTF-8"?><manifest xmlns="http://www.imsglobal.org/xsd/imscp_v1p1" identifier="m"><metadata><schema>QTI Package</schema><schemaversion>${version}</schemaversion></metadata><organizations/><resources><resource identifier="r_test" type="imsqti_test_xml${TYPES[version]}" href="test.xml"><file href="test.xml"/></resource>${course.items.map(resource).join('')}${media.map((p, at) => `<resource identifier="f${at}" type="webcontent" href="${p}"><file href="${p}"/></resource>`).join('')}</resources></manifest>`;
}
