import { useSessionStorage } from '@vueuse/core'
import type { CallDetail, Disposed, DispositionPreview } from '~~/shared/calling'
import type { EffectDone, EffectPreview } from '~~/shared/effects'
import type { EffectChoice } from '~~/shared/schemas/effect'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'

/** What somebody says of one effect before the key is pressed. */
export type Choice = EffectChoice

/** What an effect still asks for, that nobody has said yet. */
function isOpen({ effect, text }: EffectPreview, choice: Choice | undefined): boolean {
  if (choice?.leftOut) return false
  if (effect.kind === 'field' && effect.value === null) return !choice?.answers.value
  if (effect.kind === 'call-back' && effect.days === null) return !choice?.day
  return !!text && choice?.text == null && text.fillIns.some(({ key }) => !choice?.answers[key])
}

/** By disposition what was said of its effects, and which one is being looked at. */
interface SaidOfCall { chosenId: string | null, choices: Record<string, Record<number, Choice>> }

/**
 * What somebody has said of a call's keys stays with each key until one is pressed: whatever the call does meanwhile, where
 * the mouse goes, and whether the call is closed and opened again or the page is loaded anew.
 */
function useSaid(callId: () => string) {
  const said = useSessionStorage<Record<string, SaidOfCall>>(`plauder-said-${useMe().me?.id ?? 'nobody'}`, {})
  const own = computed({
    get: () => said.value[callId()] ?? { chosenId: null, choices: {} },
    set: value => said.value = { ...said.value, [callId()]: value },
  })
  return {
    chosenId: computed({ get: () => own.value.chosenId, set: chosenId => own.value = { ...own.value, chosenId } }),
    choices: computed({
      get: () => own.value.choices[own.value.chosenId ?? ''] ?? {},
      set: (value: Record<number, Choice>) =>
        own.value = { ...own.value, choices: { ...own.value.choices, [own.value.chosenId ?? '']: value } },
    }),
    forget: () => said.value = Object.fromEntries(Object.entries(said.value).filter(([other]) => other !== callId())),
  }
}

/** The keys that end a call: what each would do, what was said of it, and pressing one. */
export function useDispositions(call: () => CallDetail, pressed: () => void) {
  const all = shallowRef<DispositionPreview[] | null>(null)
  const { chosenId, choices, forget } = useSaid(() => call().id)
  const { problem, errors, busy, trying } = useTrying()
  const reading = useTrying()
  const done = shallowRef<Disposed | null>(null)

  const chosen = computed(() => all.value?.find(({ id }) => id === chosenId.value) ?? null)
  const open = computed(() => chosen.value?.effects.filter(one => isOpen(one, choices.value[one.position])) ?? [])

  const preview = () => api<DispositionPreview[]>(`/api/calls/${call().id}/dispositions`)
  const reload = async () => all.value = await preview().catch(() => all.value)

  /** A key can be pressed while what they do is read anew. */
  async function load(): Promise<void> {
    await reading.trying(async () => {
      if (call().disposition && !done.value) done.value = await api<Disposed>(`/api/calls/${call().id}/disposition`)
      all.value = await preview()
    })
    problem.value = reading.problem.value
  }

  function choose(id: string): void {
    if (chosenId.value === id) return
    chosenId.value = id
    errors.value = {}
  }

  function say(position: number, values: Partial<Choice>): void {
    const before = choices.value[position] ?? { position, leftOut: false, text: null, answers: {}, day: null, time: null }
    choices.value = { ...choices.value, [position]: { ...before, ...values } }
    errors.value = {}
  }

  /** @returns whether it is done; if not, something is still asked for or stands in the way */
  async function press(id: string): Promise<boolean> {
    choose(id)
    if (open.value.length > 0 || busy.value) return false
    return trying(async () => {
      done.value = await api<Disposed>(`/api/calls/${call().id}/disposition`, {
        method: 'POST',
        body: { dispositionId: id, choices: Object.values(choices.value) },
      })
      forget()
      pressed()
    })
  }

  async function takeBack(): Promise<void> {
    let stays: EffectDone[] = []
    await trying(async () => {
      const after = await api<Disposed>(`/api/calls/${call().id}/disposition/take-back`, { method: 'POST', body: {} })
      stays = after.effects.filter(({ state }) => state === 'stays')
      done.value = null
      pressed()
    })
    if (stays.length > 0) problem.value = `Taken back, but this stays: ${stays.map(({ words, reason }) => `${words}. ${reason}`).join(' ')}`
    // what each key would do is worked out anew; until then they can be pressed as they are
    void reload()
  }

  return { all, chosen, choices, open, problem, errors, busy, done, load, choose, say, press, takeBack, forget }
}
