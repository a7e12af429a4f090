import { execFileSync } from 'node:child_process'

const CASES: [file: string, specifier: string, refused: boolean][] = [
  ['core/text/new.ts', '~~/server/db/door', true],
  ['core/text/new.ts', 'vue', true],
  ['shared/new.ts', '~~/server/db/door', true],
  ['app/words/new.ts', '~~/server/db/door', true],
  ['server/records/new.ts', '~~/app/words/time', true],
  ['practice/carrier/new.ts', '../../core/text/measure', true],
  ['app/words/new.ts', '~~/core/text/measure', false],
  // within the server no room uses one that stands on it
  ['server/records/new.ts', '../calling/dial', true],
  ['server/calling/rounds/new.ts', '../../pages/record', true],
  ['server/texting/new.ts', '~~/server/timeline/read', true],
  ['server/calling/rounds/new.ts', '../../records/list', false],
  ['server/api/new.ts', '~~/server/pages/record', false],
]

/** ESLint's view of files that do not exist, each with one import in it; in a process of its own, as its configuration is an ES module. */
function refusals(): boolean[] {
  const script = `
    import { ESLint } from 'eslint'
    const eslint = new ESLint()
    const results = []
    for (const [filePath, specifier] of ${JSON.stringify(CASES)}) {
      const [{ messages }] = await eslint.lintText("import { something } from '" + specifier + "'\\n\\nsomething()\\n", { filePath })
      results.push(messages.some(message => message.ruleId === 'no-restricted-imports'))
    }
    console.log(JSON.stringify(results))`
  return JSON.parse(execFileSync(process.execPath, ['--input-type=module', '-e', script], { encoding: 'utf8' })) as boolean[]
}

describe('imports go one way', () => {
  it('and one that does not fails the build', () => {
    expect(refusals()).toEqual(CASES.map(([, , refused]) => refused))
  })
})
