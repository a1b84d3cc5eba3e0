import { parentPort } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

register();
const { main } = await import('../src/main.ts');
parentPort.postMessage(await main(process.argv.slice(2)));
