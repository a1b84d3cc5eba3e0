import { defineConfig } from 'vite';

// The job worker is a program of its own: bundled apart from the server, into build/workers/. So is what stores rows,
// and what reads PDFs.
export default defineConfig({
  build: {
    ssr: true,
    outDir: 'build/workers',
    emptyOutDir: true,
    target: 'node20',
    rolldownOptions: {
      input: {
        job: 'src/lib/server/work/worker.ts',
        rows: 'src/lib/server/work/rowWorker.ts',
        pdfThread: 'core/node/pdfThread.ts',
      },
      output: { entryFileNames: '[name].js' },
    },
  },
  ssr: { noExternal: true },
});
