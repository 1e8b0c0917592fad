// Prints "passed failed" of a runner's JSON report: `node scripts/countTests.mjs vitest|playwright file`.
import { readFileSync } from 'node:fs';

const [runner, file] = process.argv.slice(2);
const report = JSON.parse(readFileSync(file, 'utf8'));
if (runner === 'vitest') {
  const failedSuites = report.testResults.filter(
    (suite) => suite.status === 'failed' && suite.assertionResults.length === 0,
  ).length;
  console.log(`${report.numPassedTests} ${report.numFailedTests + failedSuites}`);
} else {
  const { expected, unexpected, flaky } = report.stats;
  console.log(`${expected + flaky} ${unexpected + report.errors.length}`);
}
