import { fitQti12 } from '../../fit/qti12.ts';
import { child } from '../../xml/tree.ts';
import type { DocumentFormat, PackageFormat } from '../format.ts';
import { readQti12 } from './read.ts';
import { writeQti12Package } from './writePackage.ts';

/** QTI 1.2 (ASI), alone or in a cartridge. */
export const QTI12_DOCUMENTS: DocumentFormat = {
  roots: { questestinterop: 'asi' },
  version: () => '1.2',
  namesPackage: true,
  read: (_, context) => readQti12(context),
  contradiction(declared, { version }, root) {
    const holds = (name: string): boolean => child(root, name) !== undefined && child(root, name) !== null;
    if (declared.endsWith('/question-bank') && holds('assessment') && !holds('objectbank'))
      return 'assessment';
    if (declared.endsWith('/assessment') && holds('objectbank') && !holds('assessment'))
      return 'question bank';
    return /imsqti_xmlv1p|webcontent|associatedcontent|^$/u.test(declared) ? null : `QTI ${version}`;
  },
};

export const QTI12_PACKAGES: PackageFormat<'qti1.2'> = {
  targets: ['qti1.2'],
  forecast(holding) {
    const { items, findings } = fitQti12(holding, 'plain');
    return { look: (item) => void items.losses(item), findings };
  },
  write(holding, _, readFile) {
    const fitted = fitQti12(holding, 'plain');
    const { entries, findings } = writeQti12Package(fitted.holding, fitted.items, readFile);
    return { packages: [entries], findings: () => [...fitted.findings(), ...findings] };
  },
};
