import { diffWordsWithSpace } from 'diff'

/** A piece of a text as it became: kept, taken out, or put in. */
export interface Change { kind: 'same' | 'out' | 'in', words: string }

/**
 * What changed between two wordings, as a person reads it: neighbouring words that changed are one change, and not
 * as many as there are blanks between them.
 */
export function changesBetween(before: string, after: string): Change[] {
  const changes: Change[] = []
  let [out, put] = ['', '']
  const flush = () => {
    if (out) changes.push({ kind: 'out', words: out })
    if (put) changes.push({ kind: 'in', words: put })
    out = put = ''
  }
  const parts = diffWordsWithSpace(before, after)
  for (const [place, { added, removed, value }] of parts.entries()) {
    const next = parts[place + 1]
    if (removed) out += value
    else if (added) put += value
    else if (value.trim() === '' && (out || put) && next && (next.added || next.removed)) {
      out += value
      put += value
    }
    else {
      flush()
      changes.push({ kind: 'same', words: value })
    }
  }
  flush()
  return changes
}
