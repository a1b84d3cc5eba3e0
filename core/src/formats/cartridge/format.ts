import { fitQti12 } from '../../fit/qti12.ts';
import { finding } from '../../model/finding.ts';
import { emptyDraft } from '../draft.ts';
import type { DocumentFormat, PackageFormat } from '../format.ts';
import { readLink } from './read.ts';
import { seriesFindings, seriesOf, writeCartridge, type CartridgeVersion } from './write.ts';

/** Each kind of document that a cartridge adds to QTI: its word, and what its declared type says. */
const KINDS = {
  weblink: ['web link', /imswl/u],
  lti: ['LTI link', /imsbasiclti/u],
  topic: ['discussion topic', /imsdt/u],
} as const;
type Kind = keyof typeof KINDS;

/**
 * What a Common Cartridge holds beside questions: links, and topics, which are named and not read. A manifest that is
 * not the package's own says nothing.
 */
export const CARTRIDGE_DOCUMENTS: DocumentFormat = {
  roots: {
    webLink: 'weblink',
    weblink: 'weblink',
    cartridge_basiclti_link: 'lti',
    topic: 'topic',
    manifest: 'manifest',
  },
  version: () => null,
  namesPackage: false,
  read({ kind }, context, { id }) {
    if (kind === 'manifest') return emptyDraft();
    if (kind !== 'topic') return readLink(kind === 'lti' ? 'lti' : 'web', id, context);
    context.add(finding('resource-unread', 'note', { path: context.path }, { kind: KINDS.topic[0] }));
    return emptyDraft();
  },
  contradiction(declared, { kind }) {
    if (kind === 'manifest') return null;
    const [word, type] = KINDS[kind as Kind];
    return type.test(declared) ? null : word;
  },
};

type CartridgeTarget = 'cc1.1' | 'cc1.2' | 'cc1.3';

export const CARTRIDGE_PACKAGES: PackageFormat<CartridgeTarget> = {
  targets: ['cc1.1', 'cc1.2', 'cc1.3'],
  forecast(holding) {
    const { holding: fitted, items, findings } = fitQti12(holding, 'cartridge');
    return {
      look: (item) => void items.losses(item),
      findings: () => [...findings(), ...seriesFindings(fitted, seriesOf(fitted))],
    };
  },
  write(holding, target, readFile) {
    const version = target.slice('cc'.length) as CartridgeVersion;
    const fitted = fitQti12(holding, 'cartridge');
    const series = seriesOf(fitted.holding);
    const written = series.map((one) =>
      writeCartridge(one.holding, fitted.items, one.bank, version, readFile),
    );
    return {
      packages: written.map((w) => w.entries),
      findings: () => [
        ...fitted.findings(),
        ...seriesFindings(fitted.holding, series),
        ...written.flatMap((w) => w.findings),
      ],
    };
  },
};
