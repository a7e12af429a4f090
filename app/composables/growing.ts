import { useTextareaAutosize, type UseTextareaAutosizeReturn } from '@vueuse/core'
import type { Ref } from 'vue'

/**
 * A field as high as what is written in it. Browsers that can do it do it by themselves (`field-sizing` in its style);
 * for the others it is measured at every change, which lays the whole page out each time.
 */
export function useGrowing(text: Ref<string>): Pick<UseTextareaAutosizeReturn, 'textarea'> {
  return globalThis.CSS?.supports('field-sizing', 'content') ? { textarea: ref() } : useTextareaAutosize({ input: text })
}
