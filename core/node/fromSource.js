import { register } from 'tsx/esm/api';

// A thread can only take source in TypeScript once tsx is there.
register();
await import('./pdfThread.ts');
