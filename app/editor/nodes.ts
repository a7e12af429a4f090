import { mergeAttributes, Node } from '@tiptap/core'
import { writeField, type FieldPiece } from '~~/core/template/pieces'

/** What the pills need to know of the catalogue. */
export interface PillOptions { labelOf: (path: string) => string }

/** A merge field as a pill: one piece, which is copied as Liquid. */
export const FieldNode = Node.create<PillOptions>({
  name: 'field',
  group: 'inline',
  inline: true,
  atom: true,
  selectable: true,
  addOptions: () => ({ labelOf: path => path }),
  addAttributes: () => ({ path: { default: '' }, format: { default: null }, standIn: { default: null } }),
  parseHTML: () => [],
  renderHTML({ node, HTMLAttributes }) {
    const { path, standIn } = node.attrs as FieldPiece
    const label = this.options.labelOf(path)
    return [
      'span',
      mergeAttributes(
        { class: path.startsWith('fill_in.') ? 'pill field-pill blank-pill' : 'pill field-pill', title: path },
        { 'aria-label': `Field ${label}` },
        { class: HTMLAttributes.class as string | undefined },
      ),
      standIn === null ? label : `${label}, else “${standIn}”`,
    ]
  },
  renderText: ({ node }) => writeField({ kind: 'field', ...node.attrs } as FieldPiece),
})

/** Liquid that is no field: conditions and the like, kept as they are written. */
export const LiquidNode = Node.create({
  name: 'liquid',
  group: 'inline',
  inline: true,
  atom: true,
  selectable: true,
  addAttributes: () => ({ source: { default: '' } }),
  parseHTML: () => [],
  renderHTML: ({ node }) => ['span', { class: 'pill liquid-pill' }, String(node.attrs.source)],
  renderText: ({ node }) => String(node.attrs.source),
})
