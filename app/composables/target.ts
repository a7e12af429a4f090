import type { ComputedRef, Ref } from 'vue'
import type { ZoneRules } from '~~/core/hours/rules'
import { isE164 } from '~~/core/phone/e164'
import { showPhone } from '~~/core/phone/show'
import type { ComposerStart, LineChoice } from '~~/shared/composer'
import { hasNumbers, type Module, type TextedModule } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import type { ConversationDetail } from '~~/shared/shelf'
import { api } from '~/composables/api'
import type { Target } from '~/composables/composer'
import { useTrying } from '~/composables/trying'
import { chooseLine, lineChoices, numberChoices, PROPOSED_WORDS, type Choice, type LineOption } from '~/words/choices'

/** To whom a text is written and from where: all that a composer has to know, whether they are on a record or on none. */
export interface WritingTo {
  /** Under what the draft is kept. */
  draftKey: ComputedRef<string>
  /** What they are called. */
  name: ComputedRef<string>
  numbers: ComputedRef<Choice[]>
  phoneId: Ref<string | null>
  lines: ComputedRef<LineOption[]>
  lineId: Ref<string | null>
  line: ComputedRef<LineChoice | null>
  /** Why that line is proposed; null where somebody has chosen it. */
  why: ComputedRef<string | null>
  target: ComputedRef<Target | null>
  /** Where its templates are, filled for them; null where there are none. */
  templatesAt: ComputedRef<string | null>
  /** What time it may be there. */
  zones: ComputedRef<ZoneRules[]>
  optedOut: ComputedRef<boolean>
  /** What the sender may want to look at again. */
  known: ComputedRef<{ sender: string[], last: ComposerStart['texted'][string] | null, lastHeardAt: number | null }>
  /** When the sender has looked at what was said so far, by the server's clock. */
  openedAt: ComputedRef<number>
  /** For which module, and from whose values, what is written can be made a template. */
  saves: ComputedRef<{ recordId: string, module: TextedModule } | null>
  /** Why nothing can be sent to the number that is chosen. */
  problem: Ref<string>
}

/**
 * To which number of a record a text goes, and from which line: chosen by themselves, and anew when what was chosen
 * cannot be used any more.
 */
export function useRecordTarget(record: () => RecordDetail, start: () => ComposerStart): WritingTo {
  const numbers = computed(() => numberChoices(record().phones))
  const firstOpen = () => numbers.value.find(choice => !choice.disabled)?.id ?? null
  const phoneId = ref(firstOpen())
  watch(numbers, (choices) => {
    if (!choices.some(choice => choice.id === phoneId.value && !choice.disabled)) phoneId.value = firstOpen()
  })
  const phone = computed(() => record().phones.find(one => one.id === phoneId.value) ?? null)
  const e164 = computed(() => phone.value?.e164 ?? '')
  const { lines, lineId, line, why } = useLines(start, () => phone.value?.country ?? null, () => e164.value)
  // a template is filled for whose number it is: a person on the record, or the record itself
  const filledFor = computed(() => phone.value?.person?.id ?? (hasNumbers(record().module) ? record().id : null))
  return {
    draftKey: computed(() => `record ${record().id}`),
    name: computed(() => phone.value?.person?.firstName ?? record().firstName ?? record().name),
    numbers,
    phoneId,
    lines,
    lineId,
    line,
    why,
    target: computed(() =>
      lineId.value && phoneId.value
        ? { lineId: lineId.value, phoneId: phoneId.value, conversationId: null, recordId: phone.value?.person ? record().id : null }
        : null,
    ),
    templatesAt: computed(() => filledFor.value && `/api/records/${filledFor.value}/templates`),
    zones: computed(() => record().zones.filter(({ name }) => phone.value?.zones.includes(name))),
    optedOut: computed(() =>
      phone.value?.consent.texts === 'refused' || (!phone.value && record().phones.some(({ consent }) => consent.texts === 'refused'))),
    known: computed(() => ({
      sender: start().sender,
      last: start().texted[e164.value] ?? null,
      lastHeardAt: phone.value?.lastHeardAt ?? null,
    })),
    openedAt: computed(() => start().openedAt),
    saves: computed(() => savesAs(record())),
    problem: ref(''),
  }
}

const savesAs = ({ id, module }: { id: string, module: Module }) => hasNumbers(module) ? { recordId: id, module } : null

/** The other side of a conversation, on a record or on none; from its own line, or another one of mine. */
export function useConversationTarget(conversation: () => ConversationDetail, start: () => ComposerStart): WritingTo {
  const remote = computed(() => conversation().remote)
  const holder = computed(() => conversation().records[0] ?? null)
  const { lines, lineId, line, why } = useLines(start, () => conversation().country, () => remote.value)
  // somebody of another country can call it, and is not texted from it
  if (lines.value.some(({ id, disabled }) => id === conversation().lineId && !disabled)) lineId.value = conversation().lineId
  /** Over each line somebody on no record has a conversation of their own. */
  const over = ref<Record<string, string>>({ [conversation().lineId]: conversation().id })
  const { problem, trying } = useTrying()
  watch(lineId, (chosen) => {
    if (!chosen || over.value[chosen] || conversation().phone) return
    void trying(async () => {
      const { conversationId } = await api<{ conversationId: string | null }>('/api/conversations', {
        method: 'POST',
        body: { typed: remote.value, lineId: chosen },
      })
      if (conversationId) over.value = { ...over.value, [chosen]: conversationId }
    })
  })
  const phoneId = computed({ get: () => conversation().phone?.id ?? conversation().id, set: () => undefined })
  return {
    draftKey: computed(() => holder.value ? `record ${holder.value.id}` : `conversation ${conversation().id}`),
    name: computed(() => holder.value?.firstName ?? holder.value?.name ?? showPhone(remote.value, true)),
    numbers: computed(() => [{ id: phoneId.value, label: showPhone(remote.value, true), note: '', disabled: false }]),
    phoneId,
    lines,
    lineId,
    line,
    why,
    target: computed(() => {
      const conversationId = over.value[lineId.value ?? ''] ?? null
      const phone = conversation().phone?.id ?? null
      if (!lineId.value || !isE164(remote.value) || !(phone || conversationId)) return null
      return { lineId: lineId.value, phoneId: phone, conversationId }
    }),
    templatesAt: computed(() =>
      holder.value ? `/api/records/${holder.value.id}/templates` : `/api/conversations/${conversation().id}/templates`),
    zones: computed(() => conversation().zones),
    optedOut: computed(() => conversation().optedOut),
    known: computed(() => ({
      sender: start().sender,
      last: start().texted[remote.value] ?? null,
      lastHeardAt: conversation().lastHeardAt,
    })),
    openedAt: computed(() => start().openedAt),
    saves: computed(() => holder.value && savesAs(holder.value)),
    problem,
  }
}

/** My lines for a number, of which one is chosen by itself. */
function useLines(start: () => ComposerStart, country: () => string | null, e164: () => string) {
  const lines = computed(() => lineChoices(start().lines, country()))
  const lineId = ref<string | null>(null)
  const line = computed(() => start().lines.find(one => one.id === lineId.value) ?? null)
  const proposed = computed(() => chooseLine(lines.value, e164() || null, start().lastLine[e164()]))
  const isOpen = () => lines.value.some(({ id, disabled }) => id === lineId.value && !disabled)
  watch([e164, lines], ([number], [before]) => {
    // what is known of the lines may be read anew at any moment: whoever has chosen one writes from that one
    if (number !== before || !isOpen()) lineId.value = proposed.value?.id ?? null
  }, { immediate: true })
  /** Why it is this one, while nobody has chosen another. */
  const why = computed(() => proposed.value && proposed.value.id === lineId.value ? PROPOSED_WORDS[proposed.value.why] : null)
  return { lines, lineId, line, why }
}
