import { install, installChromium, run, runTogether } from './setup.mjs';

// One command from a fresh clone to a full verdict: install what is missing, lint, check types, run all tests.
install();
installChromium();
// Each takes one core.
await runTogether('check', 'lint');
await runTogether('test:unit', 'build');
run('npm', ['run', '--silent', 'test:e2e']);
