// npm test: from a fresh clone to one closing line. Lint, types and build count as one test each.
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { beside, build, chromium, install, root, run } from './setup.mjs';

const results = join(root, 'test-results');
let passed = 0;
let failed = 0;

function count(name, ok) {
  console.log(`${ok ? 'passed' : 'FAILED'}: ${name}`);
  if (ok) passed++;
  else failed++;
}

/** Add up a JSON report; a report that is missing or empty counts as one failure. */
function report(name, file, read) {
  try {
    const [good, bad] = read(JSON.parse(readFileSync(file, 'utf8')));
    passed += good;
    failed += bad;
    if (good + bad === 0) count(`${name} ran no test`, false);
    console.log(`${name}: ${good} passed, ${bad} failed`);
  } catch {
    count(`${name} gave no report`, false);
  }
}

install();
const browser = chromium();
rmSync(results, { recursive: true, force: true });
// each of these keeps one processor busy: two at a time; where the field cannot be made, the browser tests say so
let field;
build(() => {
  field = beside('node', ['e2e/support/field.mjs']);
});
await field;
const lint = beside('npm', ['run', '--silent', 'lint']);
count('types of the web application', run('npm', ['run', '--silent', 'types', '-w', '@lithagon/web']));
count('lint, import directions, types of tests', await lint);
const unit = join(results, 'unit.json');
run('npx', ['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`]);
report('unit tests', unit, (r) => [
  r.numPassedTests,
  r.numFailedTests + (r.numFailedTestSuites > 0 && r.numFailedTests === 0 ? r.numFailedTestSuites : 0),
]);
const e2e = join(results, 'e2e.json');
run('npx', ['playwright', 'test', '--reporter=list,json'], {
  env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: e2e, CHROMIUM: browser },
});
report('browser tests', e2e, (r) => [r.stats.expected + r.stats.flaky, r.stats.unexpected + r.errors.length]);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
