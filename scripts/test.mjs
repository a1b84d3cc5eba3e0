import { build, install, installChromium, run } from './setup.mjs';

// One command from a fresh clone to a full verdict: install what is missing, lint, check types, run all tests.
install();
installChromium();
run('npm', ['run', '--silent', 'check']);
run('npm', ['run', '--silent', 'lint']);
run('npm', ['run', '--silent', 'test:unit']);
build();
run('npm', ['run', '--silent', 'test:e2e']);
