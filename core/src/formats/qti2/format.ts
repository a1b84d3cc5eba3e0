import { fitQti2 } from '../../fit/qti2.ts';
import { emptyDraft } from '../draft.ts';
import type { DocumentFormat, PackageFormat } from '../format.ts';
import { readQti2 } from './read.ts';
import { writeQti2 } from './write.ts';

/** QTI 2.0 to 3.0. Stimuli and private templates are read where an item refers to them. */
export const QTI2_DOCUMENTS: DocumentFormat = {
  roots: {
    assessmentItem: 'item',
    assessmentTest: 'test',
    assessmentSection: 'section',
    assessmentStimulus: 'stimulus',
    responseProcessing: 'template',
    'qti-assessment-item': 'item',
    'qti-assessment-test': 'test',
    'qti-assessment-section': 'section',
    'qti-assessment-stimulus': 'stimulus',
    'qti-response-processing': 'template',
  },
  version(root, attributes) {
    const found = /imsqti(?:asi)?_v(\d)p(\d)/u.exec(attributes);
    if (found) return `${found[1]}.${found[2]}`;
    if (root.startsWith('qti-')) return '3.0';
    return root.startsWith('assessment') ? '2.1' : null;
  },
  namesPackage: true,
  read({ kind, version }, context, { category }) {
    if (kind === 'item' || kind === 'test' || kind === 'section')
      return readQti2(kind, version, context, category);
    return emptyDraft();
  },
  contradiction(declared, { kind, version }) {
    if (kind === 'stimulus' || kind === 'template') return null;
    return new RegExp(`imsqti_(?:${kind})_|webcontent|^$`, 'u').test(declared)
      ? null
      : `QTI ${version} ${kind}`;
  },
};

type Qti2Target = 'qti2.1' | 'qti2.2' | 'qti3.0';
const versionOf = (target: Qti2Target) => target.slice('qti'.length) as '2.1' | '2.2' | '3.0';

export const QTI2_PACKAGES: PackageFormat<Qti2Target> = {
  targets: ['qti2.1', 'qti2.2', 'qti3.0'],
  forecast(holding, target) {
    const { items, findings } = fitQti2(holding, versionOf(target));
    return { look: (item) => void items.losses(item), findings };
  },
  write(holding, target, readFile) {
    const version = versionOf(target);
    const fitted = fitQti2(holding, version);
    const { entries, findings } = writeQti2(fitted, version, readFile);
    return { packages: [entries], findings: () => [...fitted.findings(), ...findings] };
  },
};
