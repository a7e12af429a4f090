import { closeSync, fsyncSync, mkdirSync, openSync, readFileSync, writeSync, existsSync, truncateSync } from 'node:fs'
import { join } from 'node:path'

/**
 * An append-only file of JSON lines: what was acknowledged is in it, and synced, before the answer goes
 * out. Lines that wait at the same time share one sync.
 */
export class Journal<Entry> {
  private readonly file: number
  private waiting: { line: string, done: () => void }[] = []
  private writing = false

  /** @param replay called with every entry of earlier runs, in order */
  constructor(folder: string, replay: (entry: Entry) => void) {
    mkdirSync(folder, { recursive: true, mode: 0o700 })
    const path = join(folder, 'journal.jsonl')
    if (existsSync(path)) for (const line of wholeLines(path)) replay(JSON.parse(line) as Entry)
    this.file = openSync(path, 'a', 0o600)
  }

  append(entry: Entry): Promise<void> {
    return new Promise((done) => {
      this.waiting.push({ line: `${JSON.stringify(entry)}\n`, done })
      if (!this.writing) setImmediate(() => this.write())
      this.writing = true
    })
  }

  private write(): void {
    const batch = this.waiting
    this.waiting = []
    writeSync(this.file, batch.map(({ line }) => line).join(''))
    fsyncSync(this.file)
    this.writing = false
    for (const { done } of batch) done()
  }

  close(): void {
    closeSync(this.file)
  }
}

/** A crash may leave half a line at the end, which was never acknowledged; it is cut off. */
function wholeLines(path: string): string[] {
  const text = readFileSync(path, 'utf8')
  const end = text.lastIndexOf('\n') + 1
  if (end < text.length) truncateSync(path, Buffer.byteLength(text.slice(0, end)))
  return text.slice(0, end).split('\n').filter(Boolean)
}
