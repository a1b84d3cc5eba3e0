import { readFileSync } from 'node:fs';
import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter';

const AT_MOST = 6000;

/** Prints what stood on the page when a test failed: elsewhere than here, the output is all there is. */
export default class PageReporter implements Reporter {
  onTestEnd(test: TestCase, result: TestResult): void {
    if (result.status === test.expectedStatus || result.status === 'skipped') return;
    for (const { name, path } of result.attachments)
      if (name === 'error-context' && path)
        console.log(
          `\n${test.title}, the page as it stood:\n${/# Page snapshot.*/su.exec(readFileSync(path, 'utf8'))?.[0].slice(0, AT_MOST) ?? ''}`,
        );
  }

  printsToStdio(): boolean {
    return false;
  }
}
