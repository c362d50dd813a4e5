// Adds up what every runner reports of itself; the last line is the count. Fails when a report is missing or nothing ran.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const folder = process.argv[2];
const read = (name) => JSON.parse(readFileSync(join(folder, name), 'utf8'));
const ctrf = ({ results: { summary } }) => ({ passed: summary.passed, failed: summary.failed + (summary.other ?? 0) });

const vitest = (r) => ({ passed: r.numPassedTests, failed: r.numFailedTests + r.numFailedTestSuites });

const reports = [
  { name: 'Core.ctrf.json', count: ctrf },
  { name: 'Server.ctrf.json', count: ctrf },
  { name: 'vitest.json', count: vitest },
  { name: 'packs.json', count: vitest },
  {
    name: 'playwright.json',
    count: ({ stats, errors }) => ({ passed: stats.expected, failed: stats.unexpected + stats.flaky + errors.length }),
  },
];

let [passed, failed, missing] = [0, 0, 0];
for (const { name, count } of reports) {
  try {
    const found = count(read(name));
    console.log(`${name}: ${found.passed} passed, ${found.failed} failed`);
    if (found.passed + found.failed === 0) missing++;
    passed += found.passed;
    failed += found.failed;
  } catch (error) {
    console.log(`${name}: no report (${error.message})`);
    missing++;
  }
}
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = failed > 0 || missing > 0 || passed === 0 ? 1 : 0;
