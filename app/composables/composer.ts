import { useIntervalFn } from '@vueuse/core'
import { v7 as uuid } from 'uuid'
import { measureText } from '~~/core/text/measure'
import type { NationalLanguage } from '~~/core/text/national'
import type { ZoneRules } from '~~/core/hours/rules'
import { api, type ApiProblem } from '~/composables/api'
import { problemIn } from '~/composables/trying'
import type { WallMoment } from '~~/core/hours/schedule'
import { showRef } from '~~/core/message/ref'
import type { Doubt } from '~~/shared/schemas/texting'
import type { TakenBack } from '~~/shared/texting'
import { useDrafts } from '~/stores/drafts'

export interface Target {
  lineId: string
  phoneId: string | null
  conversationId: string | null
  /** The record it is written on, where that is not the person’s. */
  recordId?: string | null
}

/** What can be open below a text that is written. */
export type Opened = 'templates' | 'later' | 'emoji'

interface Sent { id: string, activityId: string, leavesAt: number }

/** What is asked before a text leaves, beside the hour. */
export interface DoubtQuestion {
  doubt: Doubt | 'answered'
  detail: string
  /** To have seen what a colleague has answered. */
  seenUntil?: number
}

/** How a text is to leave, and what was asked about it before and answered with yes. */
export interface SendHow { nightAllowed?: boolean, later?: WallMoment | null, anyway?: Doubt[], seenUntil?: number }

export interface NightQuestion { zones: ZoneRules[], reason: string, notBefore: number | null, detail: string }

/**
 * Writing a text to somebody and sending it: the draft, its length, what stands in the way, and the few
 * seconds in which it can be taken back. The same on the record page and on the shelf.
 *
 * @param draftKey what the draft is for; it is kept under it until it is sent
 * @param languages whose national tables the line's carrier knows
 * @param openedAt up to when the sender has seen the conversation, by the server's clock
 */
export function useComposer(
  draftKey: MaybeRefOrGetter<string>,
  target: () => Target | null,
  languages: () => readonly NationalLanguage[],
  openedAt: () => number | null = () => null,
) {
  const drafts = useDrafts()
  const draft = computed({
    get: () => drafts.of(toValue(draftKey)),
    set: value => drafts.keep(toValue(draftKey), value),
  })
  const reference = computed(() => draft.value.ref)
  const text = computed({
    get: () => draft.value.text,
    set: (value: string) => {
      problem.value = null
      night.value = null
      doubt.value = null
      draft.value = { ...draft.value, text: value }
    },
  })
  const pictureIds = computed({
    get: () => draft.value.pictureIds,
    set: (ids: string[]) => {
      problem.value = null
      draft.value = { ...draft.value, pictureIds: ids }
    },
  })
  /** Whether there is anything to send. */
  const empty = computed(() => text.value.trim() === '' && pictureIds.value.length === 0)
  const measure = computed(() => measureText(text.value, languages()))
  const sending = ref(false)
  const problem = ref<ApiProblem | null>(null)
  const night = ref<NightQuestion | null>(null)
  const doubt = ref<DoubtQuestion | null>(null)
  const lastSent = ref<Sent | null>(null)
  const secondsLeft = ref(0)
  // the same id as long as the same text is tried, so that a lost answer never sends it twice
  let attempt: { id: string, of: string } | null = null

  const countdown = useIntervalFn(() => {
    secondsLeft.value = lastSent.value ? Math.max(0, Math.ceil((lastSent.value.leavesAt - Date.now()) / 1000)) : 0
    if (secondsLeft.value === 0) {
      lastSent.value = null
      countdown.pause()
    }
  }, 200, { immediate: false })

  /** Up to when answers of colleagues were shown here since it was opened. */
  let shownUntil = 0

  /** @returns what was queued, or null if something stands in the way, which is then shown */
  async function send({ nightAllowed = false, later = null, anyway = [], seenUntil = 0 }: SendHow = {}): Promise<Sent | null> {
    const to = target()
    if (!to || sending.value || empty.value) return null
    const of = JSON.stringify([to, text.value, pictureIds.value, later])
    attempt = attempt?.of === of ? attempt : { id: uuid(), of }
    sending.value = true
    problem.value = null
    night.value = null
    doubt.value = null
    shownUntil = Math.max(shownUntil, seenUntil)
    const opened = openedAt()
    try {
      const { templateId, templateVersion, ref: ownRef } = draft.value
      const sent = await api<Sent>('/api/texts', {
        method: 'POST',
        body: {
          ...to,
          id: attempt.id,
          text: text.value,
          pictureIds: pictureIds.value,
          templateId,
          templateVersion,
          nightAllowed,
          anyway,
          seenUntil: opened === null ? null : Math.max(opened, shownUntil),
          later,
          ref: ownRef,
        },
      })
      drafts.drop(toValue(draftKey))
      attempt = null
      if (!later) {
        lastSent.value = sent
        secondsLeft.value = Math.max(1, Math.ceil((sent.leavesAt - Date.now()) / 1000))
        countdown.resume()
      }
      return sent
    }
    catch (error) {
      const refused = problemIn(error)
      if (refused.type === 'ref-taken') renewRef()
      if (refused.type === 'wish' || refused.type === 'twice') doubt.value = { doubt: refused.type, detail: refused.message }
      else if (refused.type === 'answered')
        doubt.value = { doubt: 'answered', detail: refused.message, seenUntil: Number(refused.details.seenUntil) }
      else if (refused.type === 'night') night.value = { ...refused.details, detail: refused.message } as unknown as NightQuestion
      else problem.value = refused
      return null
    }
    finally {
      sending.value = false
    }
  }

  /** Another text has the reference: a new one, in the words too. */
  function renewRef(): void {
    const before = draft.value
    drafts.drop(toValue(draftKey))
    const { ref: after } = drafts.of(toValue(draftKey))
    draft.value = { ...before, ref: after, text: withRef(before.text, before.ref, after) }
  }

  /** Takes the last text back, and all that it was made of into the draft if nothing new is written there. */
  async function takeBack(): Promise<boolean> {
    if (!lastSent.value) return false
    try {
      const back = await api<TakenBack>(`/api/texts/${lastSent.value.id}/take-back`, { method: 'POST', body: {} })
      if (empty.value) takeUp(back)
      lastSent.value = null
      countdown.pause()
      return true
    }
    catch (error) {
      problem.value = problemIn(error)
      return false
    }
  }

  /** Goes on writing a text that was taken back: the draft has a reference of its own, which its words name from now on. */
  function takeUp({ text, pictureIds, templateId, templateVersion, ref: before }: TakenBack): void {
    const { ref: own } = draft.value
    draft.value = { ...draft.value, text: before ? withRef(text, before, own) : text, pictureIds, templateId, templateVersion }
  }

  /** Of which template what is written comes. */
  function comesFrom(templateId: string, templateVersion: number): void {
    draft.value = { ...draft.value, templateId, templateVersion }
  }

  return {
    text, pictureIds, empty, reference, measure, sending, problem, night, doubt, lastSent, secondsLeft, send, takeBack, takeUp, comesFrom,
  }
}

const withRef = (words: string, before: string, after: string) => words.replaceAll(showRef(before), showRef(after))
