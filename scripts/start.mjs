import { startServer } from './server.mjs';

// Starts the built application on the data folder (ALFORJA_DATA, default ./data).
const port = Number(process.env.PORT ?? 4173);
const { child, base } = await startServer({ port, data: process.env.ALFORJA_DATA ?? './data' });
console.log(`Alforja is at ${base}`);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
child.on('exit', (code) => process.exit(code ?? 0));
