import { build } from 'vite';

/** A script of this folder as in production: bundled, without the names that running from source adds to every function. */
export async function bundle(name: string): Promise<void> {
  await build({
    configFile: false,
    logLevel: 'error',
    build: {
      ssr: true,
      outDir: 'build/bench',
      emptyOutDir: true,
      target: 'node20',
      rolldownOptions: { input: { [name]: `bench/${name}.ts` }, output: { entryFileNames: '[name].js' } },
    },
    ssr: { noExternal: true },
  });
}
