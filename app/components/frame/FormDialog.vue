<script setup lang="ts">
import { useUnsaved } from '~/composables/unsaved'

/**
 * A form in a dialog. Its first field has the cursor; closed with something written in it that is not saved, it asks first.
 *
 * @example
 * <FormDialog header="A new field" width="26rem" :written="{ label, kind }" @close="emit('close')"><form>…</form></FormDialog>
 */
const { written } = defineProps<{
  header: string
  width: string
  /** All that would be lost. */
  written: unknown
}>()
const emit = defineEmits<{ close: [] }>()

const begun = JSON.stringify(written)
const { mayLeave } = useUnsaved(() => JSON.stringify(written) !== begun)
const close = async () => void (await mayLeave() && emit('close'))

/** The dialog looks for whom the cursor is for, and without an answer gives it to the button that closes it. */
const content = useTemplateRef<HTMLElement>('content')
function offerFirstField(): void {
  if (!content.value || content.value.querySelector('[autofocus]')) return
  content.value.querySelector('input:not([type="radio"], [type="checkbox"], [hidden]), select, textarea')?.setAttribute('autofocus', '')
}
</script>

<template>
  <Dialog
    visible
    modal
    :header="header"
    :style="{ width }"
    @show="offerFirstField"
    @update:visible="close"
  >
    <div ref="content">
      <slot />
    </div>
  </Dialog>
</template>
