import type { ComposerStart } from '~~/shared/composer'
import { isPersonModule } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import { chooseLine, lineChoices, numberChoices } from '~/words/choices'

/**
 * To which number of a record a text goes, and from which line: chosen by themselves, and anew when what was chosen
 * cannot be used any more.
 */
export function useTarget(record: () => RecordDetail, start: () => ComposerStart) {
  const numbers = computed(() => numberChoices(record().phones))
  const firstOpen = () => numbers.value.find(choice => !choice.disabled)?.id ?? null
  const phoneId = ref(firstOpen())
  watch(numbers, (choices) => {
    if (!choices.some(choice => choice.id === phoneId.value && !choice.disabled)) phoneId.value = firstOpen()
  })
  const phone = computed(() => record().phones.find(one => one.id === phoneId.value) ?? null)

  const lines = computed(() => lineChoices(start().lines, phone.value?.country ?? null))
  const lineId = ref<string | null>(null)
  const line = computed(() => start().lines.find(one => one.id === lineId.value) ?? null)
  watch(
    [phone, lines],
    () => (lineId.value = chooseLine(lines.value, phone.value?.e164 ?? null, start().lastLine[phone.value?.e164 ?? ''])),
    { immediate: true },
  )

  const firstName = computed(() => phone.value?.person?.firstName ?? record().firstName ?? record().name)
  /** Templates are for people: a company's own number has none. */
  const templatesFor = computed(() => phone.value?.person?.id ?? (isPersonModule(record().module) ? record().id : null))
  /** What time it may be where the number is. */
  const zones = computed(() => record().zones.filter(({ name }) => phone.value?.zones.includes(name)))
  const target = computed(() =>
    lineId.value && phoneId.value
      ? { lineId: lineId.value, phoneId: phoneId.value, conversationId: null, recordId: phone.value?.person ? record().id : null }
      : null,
  )

  return { numbers, phoneId, phone, lines, lineId, line, firstName, templatesFor, zones, target }
}
