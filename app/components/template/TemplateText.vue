<script setup lang="ts">
import { Document } from '@tiptap/extension-document'
import { Paragraph } from '@tiptap/extension-paragraph'
import { Text } from '@tiptap/extension-text'
import { Placeholder } from '@tiptap/extensions/placeholder'
import { UndoRedo } from '@tiptap/extensions/undo-redo'
import { EditorContent, useEditor } from '@tiptap/vue-3'
import type { Field } from '~~/core/template/fields'
import { toLiquid, toPieces, type FieldPiece } from '~~/core/template/pieces'
import { fullLabel } from '~~/shared/fields'
import { fieldChooser, type Choosing } from '~/editor/choosing'
import { fromDocument, nodeOf, toDocument } from '~/editor/document'
import { FieldNode, LiquidNode } from '~/editor/nodes'
import { sayField } from '~/words/template'

/** A plain-text editor with merge fields as pills; its value is Liquid. */
const {
  fields,
  readonly = false,
  label,
  invalid = false,
  describedBy,
} = defineProps<{ fields: Field[], readonly?: boolean, label: string, invalid?: boolean, describedBy?: string }>()
const source = defineModel<string>({ required: true })

const labelOf = (path: string) => {
  const field = fields.find(one => one.path === path)
  return field ? fullLabel(field) : sayField(path)
}
const choosing = shallowRef<Choosing | null>(null)
const list = useTemplateRef<{ onKey: (event: KeyboardEvent) => boolean }>('list')
/** The pill that is chosen, to be given a format and a stand-in. */
const chosen = shallowRef<{ piece: FieldPiece, at: number } | null>(null)
let written = source.value

const editor = useEditor({
  content: toDocument(source.value),
  editable: !readonly,
  extensions: [
    Document,
    Paragraph,
    Text,
    UndoRedo,
    Placeholder.configure({ placeholder: 'Hi, and {{ for a field' }),
    FieldNode.configure({ labelOf }),
    LiquidNode,
    fieldChooser({ changed: now => (choosing.value = now), onKey: event => list.value?.onKey(event) ?? false }),
  ],
  editorProps: {
    attributes: () => ({
      'class': 'words',
      'role': 'textbox',
      'aria-multiline': 'true',
      'aria-label': label,
      'spellcheck': 'true',
      ...(invalid && { 'aria-invalid': 'true' }),
      ...(describedBy && { 'aria-describedby': describedBy }),
    }),
    // whatever a word processor puts on the clipboard, its words come in; fields written as Liquid become pills
    handlePaste: (_view, event) => {
      const words = event.clipboardData?.getData('text/plain') ?? ''
      editor.value
        ?.chain()
        .focus()
        .insertContent(
          toDocument(words.replaceAll('\r\n', '\n')).content!.flatMap((paragraph, place) => [
            ...(place > 0 ? [{ type: 'paragraph' }] : []),
            ...(paragraph.content ?? []),
          ]),
        )
        .run()
      return true
    },
    clipboardTextSerializer: slice => fromDocument({ content: slice.content.toJSON() ?? [] }),
  },
  onUpdate: ({ editor: own }) => {
    written = fromDocument(own.getJSON())
    source.value = written
  },
  onSelectionUpdate: ({ editor: own }) => {
    const { selection } = own.state
    const node = own.state.doc.nodeAt(selection.from)
    chosen.value
      = !selection.empty && selection.to - selection.from === 1 && node?.type.name === 'field'
        ? { piece: { kind: 'field', ...node.attrs } as FieldPiece, at: selection.from }
        : null
  },
})

// edited as Liquid meanwhile
watch(source, now => now !== written && editor.value?.commands.setContent(toDocument(written = now)))
watch(() => readonly, now => editor.value?.setEditable(!now))

function change(piece: FieldPiece): void {
  if (!chosen.value) return
  const { at } = chosen.value
  editor.value?.chain().command(({ tr }) => Boolean(tr.setNodeMarkup(at, undefined, nodeOf(piece).attrs))).setNodeSelection(at).run()
}

function remove(): void {
  editor.value?.chain().focus().deleteSelection().run()
}

/** Puts a field where the cursor is. */
function insert(field: Pick<Field, 'path' | 'kind'>): void {
  editor.value
    ?.chain()
    .focus()
    .insertContent({ type: 'field', attrs: { path: field.path, format: field.kind === 'date' ? 'date:day' : null, standIn: null } })
    .run()
}
/** Swaps characters everywhere, for cheaper ones say. */
function swap(from: string, to: string): void {
  written = toLiquid(
    toPieces(source.value).map(piece => (piece.kind === 'words' ? { ...piece, words: piece.words.replaceAll(from, to) } : piece)),
  )
  source.value = written
  editor.value?.commands.setContent(toDocument(written))
}
const openList = () => editor.value?.chain().focus().insertContent('{{').run()
const focus = () => editor.value?.commands.focus('end')
defineExpose({ insert, swap, openList, focus })
</script>

<template>
  <div class="template-text">
    <EditorContent
      :editor="editor"
      class="sheet"
      :class="{ readonly, invalid }"
    />
    <FieldList
      v-if="choosing"
      ref="list"
      class="beside-cursor"
      :style="choosing.place ? { left: `${choosing.place.left}px`, top: `${choosing.place.bottom + 4}px` } : {}"
      :fields="fields"
      :query="choosing.query"
      @choose="choosing.choose($event)"
    />
    <PillBar
      v-if="chosen && !readonly"
      :key="chosen.at"
      :piece="chosen.piece"
      :field="fields.find(one => one.path === chosen!.piece.path)"
      :label="labelOf(chosen.piece.path)"
      @change="change"
      @remove="remove"
    />
  </div>
</template>

<style scoped>
.template-text { display: grid; gap: var(--space-2); }
.sheet { border: 1px solid var(--field-rule); border-radius: var(--round); background: var(--surface); }
.sheet:focus-within { outline: 2px solid var(--accent); outline-offset: 1px; }
.sheet.invalid { border-color: var(--wrong); }
.sheet.readonly { background: none; }
.sheet :deep(.words) { min-height: 8.5rem; padding: var(--space-4) var(--space-5); font-size: var(--size-text); line-height: 1.6; outline: none; white-space: pre-wrap; overflow-wrap: anywhere; }
.sheet :deep(.pill) { background: var(--accent-ground); color: var(--accent); border-radius: var(--round-small); padding: var(--space-hair) var(--space-2); margin: 0 1px; cursor: pointer; white-space: nowrap; }
.sheet :deep(.liquid-pill) { background: var(--hover); color: var(--quiet); font-size: var(--size-small); }
.sheet :deep(.blank-pill) { background: var(--waiting-ground); color: var(--waiting); }
.sheet :deep(.ProseMirror-selectednode) { outline: 2px solid var(--accent); }
.sheet :deep(.is-editor-empty::before) { content: attr(data-placeholder); color: var(--quiet); float: left; height: 0; pointer-events: none; }
.beside-cursor { position: fixed; z-index: 30; }
</style>
