import { error } from '@sveltejs/kit';
import { booksOf, type Book } from '$lib/shared/libraries';
import { librariesConnected, LibraryTrouble, searchLibrary } from '$lib/server/library/libraries';
import { ConnectorError } from '$lib/server/connectors/types';
import type { PageServerLoad } from './$types';

/** The books of a library by any of their words (`q`); one of them with its chapters (`book`). */
export const load: PageServerLoad = async ({ params, url }) => {
  const library = (await librariesConnected()).find((l) => l.id === params.id);
  if (!library) error(404, 'That library is no longer connected.');
  const query = url.searchParams.get('q') ?? '';
  let books: Book[] = [];
  let trouble = '';
  try {
    books = booksOf(await searchLibrary(params.id, query));
  } catch (problem) {
    if (!(problem instanceof ConnectorError) && !(problem instanceof LibraryTrouble)) throw problem;
    trouble = problem.message;
  }
  const wanted = url.searchParams.get('book');
  return { library, query, books, trouble, book: books.find((b) => b.id === wanted) ?? null };
};
