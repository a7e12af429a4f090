import type { Piece } from './pieces'

/** A value that a text may say, and the field that says it. */
export interface SaidValue { path: string, value: string }

const SHORTEST = 2

/**
 * Turns a text that was written for one person back into a template: where a value of theirs stands as whole
 * words, its field comes in. Of values that overlap, the longest counts.
 */
export function toFields(text: string, values: SaidValue[]): Piece[] {
  const known = values.filter(({ value }) => value.length >= SHORTEST).sort((a, b) => b.value.length - a.value.length)
  if (known.length === 0) return text === '' ? [] : [{ kind: 'words', words: text }]
  const pattern = new RegExp(
    `(?<![\\p{L}\\p{N}])(?:${known.map(({ value }) => value.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|')})(?![\\p{L}\\p{N}])`,
    'gu',
  )
  const pieces: Piece[] = []
  let end = 0
  for (const match of text.matchAll(pattern)) {
    if (match.index > end) pieces.push({ kind: 'words', words: text.slice(end, match.index) })
    pieces.push({ kind: 'field', path: known.find(({ value }) => value === match[0])!.path, format: null, standIn: null })
    end = match.index + match[0].length
  }
  if (end < text.length) pieces.push({ kind: 'words', words: text.slice(end) })
  return pieces
}
