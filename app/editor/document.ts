import type { JSONContent } from '@tiptap/core'
import { toLiquid, toPieces, type Format, type Piece } from '~~/core/template/pieces'

/** A template as the editor's document: a paragraph a line, fields and other Liquid as single pieces in it. */
export function toDocument(source: string): JSONContent {
  const lines: JSONContent[][] = [[]]
  for (const piece of toPieces(source)) {
    if (piece.kind !== 'words') lines.at(-1)!.push(nodeOf(piece))
    else {
      const [first, ...others] = piece.words.split('\n')
      if (first) lines.at(-1)!.push({ type: 'text', text: first })
      for (const line of others) lines.push(line ? [{ type: 'text', text: line }] : [])
    }
  }
  return { type: 'doc', content: lines.map(content => ({ type: 'paragraph', ...(content.length > 0 && { content }) })) }
}

/** The Liquid of the editor's document. */
export function fromDocument(document: JSONContent): string {
  return toLiquid(merged((document.content ?? []).flatMap((paragraph, place) => [
    ...place > 0 ? [{ kind: 'words' as const, words: '\n' }] : [],
    ...(paragraph.content ?? []).map(pieceOf),
  ])))
}

export function nodeOf(piece: Exclude<Piece, { kind: 'words' }>): JSONContent {
  return piece.kind === 'field'
    ? { type: 'field', attrs: { path: piece.path, format: piece.format, standIn: piece.standIn } }
    : { type: 'liquid', attrs: { source: piece.source } }
}

function pieceOf({ type, text, attrs }: JSONContent): Piece {
  if (type === 'field')
    return {
      kind: 'field',
      path: String(attrs?.path),
      format: (attrs?.format as Format | null | undefined) ?? null,
      standIn: (attrs?.standIn as string | null | undefined) ?? null,
    }
  if (type === 'liquid') return { kind: 'liquid', source: String(attrs?.source) }
  return { kind: 'words', words: text ?? '' }
}

/** Neighbouring words are one piece: a brace at the end of one may open a field with the next. */
function merged(pieces: Piece[]): Piece[] {
  return pieces.reduce<Piece[]>((all, piece) => {
    const last = all.at(-1)
    if (piece.kind === 'words' && last?.kind === 'words') all[all.length - 1] = { kind: 'words', words: last.words + piece.words }
    else all.push(piece)
    return all
  }, [])
}
