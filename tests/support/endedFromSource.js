import { register } from 'tsx/esm/api';

// A thread is given TypeScript only this way.
register();
await import('./endedThread.ts');
