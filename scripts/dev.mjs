import { install, run } from './setup.mjs';

// The development server on the data folder; the job worker runs from source.
install();
const port = process.env.PORT ?? '5173';
// The server knows itself by the address it listens on.
run('npx', ['vite', 'dev', '--host', '127.0.0.1', '--port', port, '--strictPort'], {
  HOST: '127.0.0.1',
  PORT: port,
});
