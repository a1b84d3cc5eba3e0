/** A publisher's library, as plain values that cross between server and screens. */

/** What a resource is: questions as a package or as a document, or a link. */
export type OfferForm = 'cartridge' | 'document' | 'web' | 'lti';

export interface LibraryResource {
  readonly id: string;
  readonly name: string;
  readonly description: string;
  readonly form: OfferForm;
  readonly url: string;
  readonly publisher: string;
  readonly authors: readonly string[];
  readonly subjects: readonly string[];
  readonly languages: readonly string[];
  /** The book it belongs to; null where it stands alone. */
  readonly book: { readonly id: string; readonly title: string; readonly edition: string } | null;
  readonly chapter: string;
  /** The number of its chapter; 0 where it has none. */
  readonly position: number;
}

/** A connected library. */
export interface LibraryView {
  readonly id: string;
  readonly name: string;
  readonly address: string;
}

interface BookChapter {
  readonly position: number;
  readonly title: string;
  readonly offers: readonly LibraryResource[];
}

/** A book with everything that is offered for it, by chapter; what belongs to the whole of it comes first. */
export interface Book {
  readonly id: string;
  readonly title: string;
  readonly edition: string;
  readonly publisher: string;
  readonly authors: readonly string[];
  readonly chapters: readonly BookChapter[];
}

/** Resources as books, in the order they are met; what belongs to none is a book of its own. */
export function booksOf(resources: readonly LibraryResource[]): Book[] {
  const byBook = new Map<string, LibraryResource[]>();
  for (const one of resources) {
    const id = one.book?.id ?? `alone-${one.id}`;
    byBook.set(id, [...(byBook.get(id) ?? []), one]);
  }
  return [...byBook].map(([id, all]): Book => {
    const [first] = all;
    return {
      id,
      title: first!.book?.title ?? first!.name,
      edition: first!.book?.edition ?? '',
      publisher: first!.publisher,
      authors: [...new Set(all.flatMap((r) => r.authors))],
      chapters: chaptersOf(all),
    };
  });
}

function chaptersOf(all: readonly LibraryResource[]): BookChapter[] {
  const chapters = new Map<number, LibraryResource[]>();
  for (const one of all) chapters.set(one.position, [...(chapters.get(one.position) ?? []), one]);
  return [...chapters]
    .sort(([a], [b]) => a - b)
    .map(([position, offers]) => ({
      position,
      title: offers.find((o) => o.chapter !== '')?.chapter ?? '',
      offers,
    }));
}
