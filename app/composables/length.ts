import { emptyTally, together, type LengthTally } from '~~/core/template/length'
import type { TemplateForm } from '~~/shared/schemas/template'
import type { CountedLength } from '~~/shared/template'
import { api } from '~/composables/api'
import { problemIn } from '~/composables/trying'

/** How long a template becomes over all people of its modules, counted piece by piece: it shows how far it is, and can be stopped. */
export function useLength() {
  const tally = shallowRef<LengthTally | null>(null)
  const total = ref<number | null>(null)
  const state = ref<'idle' | 'counting' | 'done' | 'stopped' | 'failed'>('idle')
  const problem = ref('')
  let turn = 0

  async function count(template: Pick<TemplateForm, 'body' | 'modules' | 'fillIns'>): Promise<void> {
    const own = ++turn
    state.value = 'counting'
    let sum = emptyTally()
    let after: string | null = null
    try {
      do {
        const counted: CountedLength = await api<CountedLength>('/api/templates/length', { method: 'POST', body: { ...template, after } })
        if (turn !== own) return
        sum = together(sum, counted.tally)
        total.value = counted.total ?? total.value
        tally.value = sum
        after = counted.next
      } while (after)
      state.value = 'done'
    }
    catch (error) {
      if (turn !== own) return
      problem.value = problemIn(error).message
      state.value = 'failed'
    }
  }

  function stop(): void {
    turn++
    if (state.value === 'counting') state.value = 'stopped'
  }
  onBeforeUnmount(stop)

  return { tally, total, state, problem, count, stop }
}
