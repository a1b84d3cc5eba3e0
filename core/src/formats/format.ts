import type { Finding } from '../model/finding.ts';
import type { Platform } from '../intake/platform.ts';
import type { Confirmed } from '../layout/confirmed.ts';
import type { DocumentReading, FileRef, Format, Holding, Item } from '../model/holding.ts';
import type { XmlElement } from '../xml/tree.ts';
import type { Draft, DocumentContext, ReadingContext } from './draft.ts';
import type { PackageEntries } from './packaging.ts';
import type { TableLayout } from './table/roles.ts';

/** What an XML document is, by its root element and namespace, never by its name. */
export interface Detected {
  /** The format's own word for what the document holds: `item`, `test` … */
  readonly kind: string;
  /** "1.2", "2.0" … where the root tells. */
  readonly version: string | null;
}

/** What the package says of a document beside its content. */
export interface ResourceFacts {
  readonly id: string;
  readonly category: string | null;
}

/** Documents of one standard: how they are known, and how they are read. */
export interface DocumentFormat {
  /** Names of root elements, and the kind of document each is. */
  readonly roots: Readonly<Record<string, string>>;
  readonly version: (root: string, attributes: string) => string | null;
  /** Whether its documents say which format the package is of. */
  readonly namesPackage: boolean;
  readonly read: (detected: Detected, context: DocumentContext, resource: ResourceFacts) => Draft;
  /**
   * What a document really is, where the package declares another type.
   * @param declared the type in lower case; empty where none is
   * @returns null where they agree
   */
  readonly contradiction: (declared: string, detected: Detected, root: XmlElement) => string | null;
}

/** How a file begins, or, where it is an archive, what it has inside. */
export interface FileStart {
  readonly bytes: Uint8Array;
  /** Names of its entries; null where it is no archive. */
  readonly entries: ReadonlySet<string> | null;
  /** The first few thousand characters, without white space before them. */
  readonly head: string;
  /** Whether there is more of it than `head`. */
  readonly cut: boolean;
}

/** What a reader of whole files is given. */
export interface FileContext extends ReadingContext {
  readonly platform: Platform;
  /** What the columns of tables say, where somebody has confirmed it. */
  readonly layouts: readonly TableLayout[];
  /** How documents and tables of questions are laid out, where somebody has confirmed it. */
  readonly confirmed: Confirmed;
}

/** What a file of its own was read into. */
export interface FileRead {
  readonly draft: Draft;
  /** Empty where the source has none. */
  readonly title?: string;
  /** Pictures that stand in it. */
  readonly files?: readonly FileRef[];
  readonly documents?: readonly DocumentReading[];
  /** Where reading it showed that it is something else. */
  readonly standard?: Format['standard'];
}

/** Files of one kind that are no package and no XML: how they are known, and how they are read. */
export interface FileFormat {
  /** What a file is; null where it is none of these. */
  readonly detect: (start: FileStart) => Format | null;
  /** @throws Refusal for a file that cannot be opened */
  readonly read: (format: Format, bytes: Uint8Array, context: FileContext) => Promise<FileRead>;
}

/** What a target cannot say of a holding: found item by item, as they are looked at. */
export interface Forecast {
  /** Finds out what an item of the holding loses, unless that is known. */
  readonly look: (item: Item) => void;
  /** Everything that is lost: of items, in their order, then of what holds them. */
  readonly findings: () => readonly Finding[];
}

/** What a holding becomes in a target. */
export interface WrittenEntries {
  /** One package, or a series where one cannot hold everything; each is gone through once. */
  readonly packages: readonly PackageEntries[];
  /** What is lost, once the packages have been gone through. */
  readonly findings: () => readonly Finding[];
}

/** Packages of one standard: what they can say, and how they are written. */
export interface PackageFormat<T extends string = string> {
  readonly targets: readonly T[];
  readonly forecast: (holding: Holding, target: T) => Forecast;
  readonly write: (
    holding: Holding,
    target: T,
    readFile: (path: string) => Uint8Array | null,
  ) => WrittenEntries;
}
