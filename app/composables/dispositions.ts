import type { CallDetail, Disposed, DispositionPreview } from '~~/shared/calling'
import type { EffectPreview } from '~~/shared/effects'
import type { EffectChoice } from '~~/shared/schemas/effect'
import { api, ApiProblem } from '~/composables/api'

/** What somebody says of one effect before the key is pressed. */
export type Choice = EffectChoice

/** What an effect still asks for, that nobody has said yet. */
function isOpen({ effect, text }: EffectPreview, choice: Choice | undefined): boolean {
  if (choice?.leftOut) return false
  if (effect.kind === 'field' && effect.value === null) return !choice?.answers.value
  if (effect.kind === 'call-back' && effect.days === null) return !choice?.day
  return !!text && choice?.text == null && text.fillIns.some(({ key }) => !choice?.answers[key])
}

/** The keys that end a call: what each would do, what was said of it, and pressing one. */
export function useDispositions(call: () => CallDetail, pressed: () => void) {
  const all = shallowRef<DispositionPreview[] | null>(null)
  const chosenId = ref<string | null>(null)
  const choices = ref<Record<number, Choice>>({})
  const problem = ref('')
  const errors = ref<Record<string, string>>({})
  const busy = ref(false)
  const done = shallowRef<Disposed | null>(null)

  const chosen = computed(() => all.value?.find(({ id }) => id === chosenId.value) ?? null)
  const open = computed(() => chosen.value?.effects.filter(one => isOpen(one, choices.value[one.position])) ?? [])

  const preview = () => api<DispositionPreview[]>(`/api/calls/${call().id}/dispositions`)
  const reload = async () => all.value = await preview().catch(() => all.value)

  async function load(): Promise<void> {
    try {
      if (call().disposition && !done.value) done.value = await api<Disposed>(`/api/calls/${call().id}/disposition`)
      all.value = await preview()
      problem.value = ''
    }
    catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problem.value = error.message
    }
  }

  function choose(id: string): void {
    if (chosenId.value === id) return
    chosenId.value = id
    choices.value = {}
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
    busy.value = true
    problem.value = ''
    try {
      done.value = await api<Disposed>(`/api/calls/${call().id}/disposition`, { method: 'POST', body: { dispositionId: id, choices: Object.values(choices.value) } })
      pressed()
      return true
    }
    catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      errors.value = error.fields
      problem.value = Object.values(error.fields)[0] ?? error.message
      return false
    }
    finally {
      busy.value = false
    }
  }

  async function takeBack(): Promise<void> {
    busy.value = true
    problem.value = ''
    try {
      const after = await api<Disposed>(`/api/calls/${call().id}/disposition/take-back`, { method: 'POST', body: {} })
      const stays = after.effects.filter(({ state }) => state === 'stays')
      done.value = null
      pressed()
      if (stays.length > 0) problem.value = `Taken back, but this stays: ${stays.map(({ words, reason }) => `${words}. ${reason}`).join(' ')}`
    }
    catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problem.value = error.message
    }
    finally {
      busy.value = false
    }
    // what each key would do is worked out anew; until then they can be pressed as they are
    void reload()
  }

  return { all, chosen, choices, open, problem, errors, busy, done, load, choose, say, press, takeBack }
}
