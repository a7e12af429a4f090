import { toPieces } from './pieces'

/**
 * A template as a person reads it: fields by their names, in angle quotes, with what stands in for them. What only the language of
 * templates can say stays as it is written.
 *
 * @param labelOf the name of a field, by its path
 */
export function readable(source: string, labelOf: (path: string) => string): string {
  return toPieces(source).map((piece) => {
    if (piece.kind === 'words') return piece.words
    if (piece.kind === 'liquid') return piece.source
    return `‹${labelOf(piece.path)}${piece.standIn === null ? '' : `, else ${piece.standIn === '' ? 'nothing' : `“${piece.standIn}”`}`}›`
  }).join('')
}
