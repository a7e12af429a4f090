/** A merge field as people put it in: whose value, in which format, and what stands in for it where it is empty. */
export interface FieldPiece { kind: 'field', path: string, format: Format | null, standIn: string | null }

/**
 * A template in pieces, as an editor shows it: words, fields, and what else Liquid can do, kept as it is
 * written. Neighbouring words are one piece, and none is empty.
 */
export type Piece = { kind: 'words', words: string } | FieldPiece | { kind: 'liquid', source: string }

/** Formats that a field can be given. One of a date names one of DATE_FORMATS. */
export type Format = 'first_word' | 'upcase' | 'money' | `date:${string}`

const PATH = /^[a-z_]\w*(?:\.[a-z_]\w*)+$/i
const FORMAT = /^(?:first_word|upcase|money|date:\s*"([^"{}|]*)")$/
const STAND_IN = /^default:\s*(?:"([^"]*)"|'([^']*)')$/
const TAG = /\{\{(.*?)\}\}|\{%(.*?)%\}/gs
/** How a brace that would open a field is written, so that it stays a brace. */
const BRACE = '{{ "{" }}'

/** Takes a template apart. What is no field that an editor can show stays as it is written. */
export function toPieces(source: string): Piece[] {
  const pieces: Piece[] = []
  let end = 0
  for (const match of source.matchAll(TAG)) {
    addWords(pieces, source.slice(end, match.index))
    end = match.index + match[0].length
    if (match[0] === BRACE) addWords(pieces, '{')
    else pieces.push((match[1] !== undefined && readField(match[1])) || { kind: 'liquid', source: match[0] })
  }
  addWords(pieces, source.slice(end))
  return pieces
}

/** Puts pieces together to the Liquid that is stored; `toPieces` gives the same pieces again. */
export function toLiquid(pieces: Piece[]): string {
  return pieces.map((piece, i) => {
    switch (piece.kind) {
      case 'words': return escaped(piece.words, pieces[i + 1] !== undefined)
      case 'field': return writeField(piece)
      case 'liquid': return piece.source
    }
  }).join('')
}

export function writeField({ path, format, standIn }: FieldPiece): string {
  const filters = [
    ...format ? [format.startsWith('date:') ? `date: "${format.slice('date:'.length)}"` : format] : [],
    ...standIn === null ? [] : [`default: ${quoted(standIn)}`],
  ]
  return `{{ ${[path, ...filters].join(' | ')} }}`
}

/** A stand-in that holds both kinds of quotes gives up the double ones: Liquid knows no escapes. */
function quoted(words: string): string {
  const plain = words.replace(/[{}]/g, '')
  return !plain.includes('"') ? `"${plain}"` : plain.includes('\'') ? `"${plain.replaceAll('"', '”')}"` : `'${plain}'`
}

function readField(inside: string): FieldPiece | null {
  const [path, ...filters] = splitFilters(inside)
  if (!path || !PATH.test(path)) return null
  const field: FieldPiece = { kind: 'field', path, format: null, standIn: null }
  for (const [i, filter] of filters.entries()) {
    const standIn = STAND_IN.exec(filter)
    const format = FORMAT.exec(filter)
    if (standIn && i === filters.length - 1) field.standIn = standIn[1] ?? standIn[2] ?? ''
    else if (format && i === 0) field.format = format[1] === undefined ? filter as Format : `date:${format[1]}`
    else return null
  }
  return field
}

/** At bars that stand in no quotes. */
function splitFilters(inside: string): string[] {
  return (inside.match(/(?:"[^"]*"|'[^']*'|[^|"'])+/g) ?? []).map(one => one.trim())
}

/** @param before whether something follows that begins with a brace */
function escaped(words: string, before: boolean): string {
  return words.replace(/\{(?=[{%])/g, BRACE).replace(/\{$/, last => before ? BRACE : last)
}

function addWords(pieces: Piece[], words: string): void {
  if (words === '') return
  const last = pieces.at(-1)
  if (last?.kind === 'words') last.words += words
  else pieces.push({ kind: 'words', words })
}
