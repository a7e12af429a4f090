/** How a value that is kept in one way is typed and shown in another. */
export interface Writing {
  /** What was typed as it is kept, or null if it cannot be read. */
  read: (typed: string) => string | null
  say: (kept: string) => string
}

/**
 * A field in which people type in their own way: what can be read is in the model at each key, and is written out once the
 * field is left. What cannot be read stays as it was typed, the model is empty, and once the field is left it is said.
 *
 * @example
 * const { text, unreadable, isSaid, take, leave } = useTyped(model, { read: readTime, say: timeOfDay })
 */
export function useTyped(model: Ref<string>, { read, say }: Writing) {
  const written = (kept: string) => kept ? say(kept) : ''
  const text = ref(written(model.value))
  const unreadable = computed(() => text.value.trim() !== '' && read(text.value) === null)
  const isSaid = ref(false)
  let typing = false
  watch(model, (kept) => {
    // whoever types is not interrupted by what the field stands for as long as it says nothing
    if (typing || kept === (read(text.value) ?? '')) return
    text.value = written(kept)
    isSaid.value = false
  })

  function take(typed: string): void {
    typing = true
    text.value = typed
    isSaid.value = false
    model.value = read(typed) ?? ''
  }

  function leave(): void {
    typing = false
    isSaid.value = unreadable.value
    if (!unreadable.value) text.value = written(model.value)
  }

  return { text, unreadable, isSaid, take, leave }
}
