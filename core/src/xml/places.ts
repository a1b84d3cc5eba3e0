/** Line and column of a place in a text, counted from 1. */
export interface Place {
  readonly line: number;
  readonly column: number;
}

/** Line and column of offsets in one text. Lines are found as far as somebody has asked for, each once. */
export function lineFinder(text: string): (offset: number) => Place {
  const starts = [0];
  let done = false;
  const findTo = (offset: number): void => {
    while (!done && starts.at(-1)! <= offset) {
      const end = text.indexOf('\n', starts.at(-1));
      if (end < 0) done = true;
      else starts.push(end + 1);
    }
  };
  return (offset) => {
    findTo(offset);
    let low = 0;
    let high = starts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (starts[middle]! <= offset) low = middle;
      else high = middle - 1;
    }
    return { line: low + 1, column: offset - starts[low]! + 1 };
  };
}
