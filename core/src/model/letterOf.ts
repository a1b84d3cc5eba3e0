/** Letters as people give them to choices and versions, and tables to columns: A, B … Z, AA, AB … from 0. */
export function letterOf(at: number): string {
  let out = '';
  for (let n = at; n >= 0; n = Math.floor(n / 26) - 1) out = String.fromCharCode(65 + (n % 26)) + out;
  return out;
}
