import { main } from '../../../cli/src/main.ts';

/** Runs the command line in this process and catches what it prints. */
export async function run(
  ...args: string[]
): Promise<{ exit: number; out: string; err: string; json: () => Record<string, never> }> {
  const [out, err]: string[][] = [[], []];
  const { stdout, stderr } = process;
  const [writeOut, writeErr] = [stdout.write, stderr.write];
  stdout.write = ((text: string) => out!.push(text)) as unknown as typeof stdout.write;
  stderr.write = ((text: string) => err!.push(text)) as unknown as typeof stderr.write;
  try {
    const exit = await main(args);
    const said = out!.join('');
    return {
      exit,
      out: said,
      err: err!.join(''),
      json: () => JSON.parse(said) as Record<string, never>,
    };
  } finally {
    stdout.write = writeOut;
    stderr.write = writeErr;
  }
}
