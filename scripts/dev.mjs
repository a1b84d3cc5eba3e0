import { install, run } from './setup.mjs';

// The development server on the data folder; the job worker runs from source.
install();
run('npx', ['vite', 'dev', '--host', '127.0.0.1']);
