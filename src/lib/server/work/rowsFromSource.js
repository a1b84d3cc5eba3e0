import { register } from 'tsx/esm/api';

// A thread of a thread is given TypeScript only this way.
register();
await import('./rowWorker.ts');
