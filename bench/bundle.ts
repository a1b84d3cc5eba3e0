import { build } from 'vite';

/** Scripts of this folder as in production: bundled, without the names that running from source adds to every function. */
export async function bundle(...names: readonly string[]): Promise<void> {
  await build({
    configFile: false,
    logLevel: 'error',
    build: {
      ssr: true,
      outDir: 'build/bench',
      emptyOutDir: true,
      target: 'node20',
      rolldownOptions: {
        input: Object.fromEntries(names.map((name) => [name, `bench/${name}.ts`])),
        output: { entryFileNames: '[name].js' },
      },
    },
    ssr: { noExternal: true },
  });
}
