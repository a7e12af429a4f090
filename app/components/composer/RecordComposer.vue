<script setup lang="ts">
import type { ComposerStart } from '~~/shared/composer'
import type { RecordDetail } from '~~/shared/record'
import type { TakenBack } from '~~/shared/texting'
import type TextComposer from '~/components/composer/TextComposer.vue'
import { useRecordTarget } from '~/composables/target'

/** The composer of a record's page. */
const { record, start } = defineProps<{ record: RecordDetail, start: ComposerStart }>()
const emit = defineEmits<{ sent: [activityId: string], writing: [writing: boolean] }>()

const to = useRecordTarget(() => record, () => start)
const composer = useTemplateRef<InstanceType<typeof TextComposer>>('composer')
defineExpose({
  writeAgain: (words: string) => composer.value?.writeAgain(words),
  textTo: (phoneId: string) => composer.value?.textTo(phoneId),
  change: (back: TakenBack) => composer.value?.change(back),
})
</script>

<template>
  <TextComposer
    ref="composer"
    :to="to"
    @sent="emit('sent', $event)"
    @writing="emit('writing', $event)"
  />
</template>
