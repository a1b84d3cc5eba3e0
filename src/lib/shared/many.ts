/** "1 thing", "3 things": for words that the server makes; screens say numbers in the reader's language. */
export const many = (n: number, one: string, several = `${one}s`): string =>
  `${n} ${n === 1 ? one : several}`;
