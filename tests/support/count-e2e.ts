import { mkdirSync, writeFileSync } from 'node:fs'
import type { Reporter, Suite, TestCase } from '@playwright/test/reporter'

/** Leaves Playwright's counts where bin/test adds them up over all runners. */
export default class CountReporter implements Reporter {
  private suite: Suite | null = null

  onBegin(_config: unknown, suite: Suite) {
    this.suite = suite
  }

  onEnd() {
    const outcomes = (this.suite?.allTests() ?? []).map((test: TestCase) => test.outcome())
    mkdirSync('.cache', { recursive: true })
    writeFileSync(process.env.COUNTS ?? '.cache/count-e2e.json', JSON.stringify({
      passed: outcomes.filter(outcome => outcome === 'expected').length,
      failed: outcomes.filter(outcome => outcome === 'unexpected' || outcome === 'flaky').length,
    }))
  }
}
