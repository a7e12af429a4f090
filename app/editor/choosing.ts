import { Extension } from '@tiptap/core'
import Suggestion, { type SuggestionKeyDownProps, type SuggestionProps } from '@tiptap/suggestion'
import type { Field } from '~~/core/template/fields'

/** What is typed behind `{{`, where it stands, and how one is chosen. */
export interface Choosing { query: string, place: DOMRect | null, choose: (field: Field) => void }

interface Options {
  changed: (choosing: Choosing | null) => void
  /** @returns whether the list has used the key */
  onKey: (event: KeyboardEvent) => boolean
}

/** Typing `{{` opens the list of fields where the cursor is. */
export const fieldChooser = (options: Options) => Extension.create({
  name: 'fieldChooser',
  addProseMirrorPlugins() {
    const tell = ({ query, clientRect, command }: SuggestionProps<Field, Field>) =>
      options.changed({ query, place: clientRect?.() ?? null, choose: command })
    return [Suggestion<Field, Field>({
      editor: this.editor,
      char: '{{',
      allowSpaces: true,
      allowedPrefixes: null,
      items: () => [],
      command: ({ editor, range, props: field }) => {
        editor
          .chain()
          .focus()
          .deleteRange(range)
          .insertContent({ type: 'field', attrs: { path: field.path, format: field.kind === 'date' ? 'date:day' : null, standIn: null } })
          .run()
      },
      render: () => ({
        onStart: tell,
        onUpdate: tell,
        onExit: () => options.changed(null),
        onKeyDown: ({ event }: SuggestionKeyDownProps) => options.onKey(event),
      }),
    })]
  },
})
