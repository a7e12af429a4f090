import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { proxy, wrap, type Remote } from 'comlink'
import { v7 as uuid } from 'uuid'
import { guessMatching, type ImportTarget, type Matching } from '~~/core/import/targets'
import type { DayOrder } from '~~/core/import/days'
import type { DuplicateRules } from '~~/core/import/fate'
import type { ImportProgress, ImportRules } from '~~/shared/import'
import { isPersonModule, type Module } from '~~/shared/modules'
import type { ProblemDetails } from '~~/shared/problems'
import type { Foreseen, ForeseenRow, ImportFile, OpenedFile, RowChoice } from '~/workers/import-file'
import { useMe } from '~/stores/me'
import { api, ApiProblem, OFFLINE } from './api'

/** Countries of which the firm has lines come first in the list of them. */
const HOME = 'US'

/**
 * Bringing a file in: it is read and judged by a worker, its columns are matched, what would become of its
 * rows is foreseen, and then it is sent and watched.
 */
export function useImport(module: Module) {
  const me = useMe()
  const file = shallowRef<File | null>(null)
  const opened = shallowRef<OpenedFile | null>(null)
  const targets = shallowRef<ImportTarget[]>([])
  const matching = shallowRef<Matching>([])
  const country = ref(HOME)
  const chosenOrders = ref<Record<number, DayOrder>>({})
  const duplicates = ref<DuplicateRules>({ number: 'join', mail: 'join', name: 'keep-both' })
  const ownerId = ref(me.me!.id)
  const foreseen = shallowRef<Foreseen | null>(null)
  const judged = ref(0)
  const sent = ref(0)
  const sending = ref(false)
  const progress = shallowRef<ImportProgress | null>(null)
  const problem = ref('')
  let worker: Worker | null = null
  let remote: Remote<ImportFile> | null = null
  let importId = uuid()

  function reader(): Remote<ImportFile> {
    worker ??= new Worker(new URL('../workers/import-file.ts', import.meta.url), { type: 'module' })
    remote ??= wrap<ImportFile>(worker)
    return remote
  }
  onScopeDispose(() => worker?.terminate())

  async function trying<T>(work: () => Promise<T>): Promise<T | null> {
    try {
      problem.value = ''
      return await work()
    }
    catch (error) {
      const known = problemOf(error)
      if (!known) throw error
      if (known.details.status === 401) me.expired = true
      problem.value = Object.values(known.fields)[0] ?? known.message
      return null
    }
  }

  /** @param headed whether its first row is headings, where somebody said so */
  async function open(chosen: File, headed?: boolean): Promise<void> {
    file.value = chosen
    chosenOrders.value = {}
    foreseen.value = null
    progress.value = null
    importId = uuid()
    const known = await trying(() =>
      api<{ targets: ImportTarget[], remembered: Record<string, string | null> }>('/api/imports/targets', { query: { module } }),
    )
    const read = known && await trying(() => reader().open(chosen, headed))
    if (!known || !read) return
    if (read.total === 0) {
      problem.value = `There is no row in ${chosen.name}. It needs a line of headings, and a line for each record below.`
      return
    }
    targets.value = known.targets
    matching.value = guessMatching(read.headings, read.samples, known.targets, known.remembered, country.value)
    opened.value = read
  }

  const rules = computed<ImportRules>(() => ({
    matching: matching.value,
    country: country.value,
    dayOrders: (opened.value?.dayOrders ?? []).map((order, i) => order ?? chosenOrders.value[i] ?? null),
    duplicates: duplicates.value,
    ownerId: ownerId.value,
  }))
  /** Columns of days that do not tell by themselves in which order their figures are, with a cell that reads two ways. */
  const twoWays = computed(() => matching.value.flatMap((key, column) => {
    const cell = opened.value?.twoWays[column]
    return cell && targets.value.find(target => target.key === key)?.kind === 'date'
      ? [{ column, heading: opened.value!.headings[column]!, cell }]
      : []
  }))
  const undecided = computed(() => twoWays.value.filter(({ column }) => !chosenOrders.value[column]))

  const foresee = useDebounceFn(async () => {
    if (!opened.value || undecided.value.length > 0 || matching.value.every(key => key === null)) return
    judged.value = 0
    const { matching: columns, country: home, dayOrders } = rules.value
    const reading = { people: isPersonModule(module), matching: columns, targets: targets.value, country: home, dayOrders }
    const answer = await trying(() =>
      reader().foresee(
        module,
        JSON.parse(JSON.stringify(rules.value)) as ImportRules,
        JSON.parse(JSON.stringify(reading)) as typeof reading,
        proxy((done: number) => (judged.value = done)),
      ),
    )
    if (answer) foreseen.value = answer
  }, 250)
  watch([opened, rules], () => {
    foreseen.value = null
    void foresee()
  }, { deep: true })

  const rowsOf = (kind: RowChoice | null, start: number, count: number): Promise<ForeseenRow[]> => reader().rowsOf(kind, start, count)

  async function bringIn(): Promise<void> {
    const { headings, total } = opened.value!
    sending.value = true
    sent.value = 0
    const begun = await trying(async () => {
      await api('/api/imports', {
        method: 'POST',
        body: { id: importId, module, fileName: file.value!.name, headings, total, rules: rules.value },
      })
      await reader().send(importId, proxy((done: number) => sent.value = done))
      return api<ImportProgress>(`/api/imports/${importId}/start`, { method: 'POST', body: {} })
    })
    sending.value = false
    if (begun) progress.value = begun
  }

  function another(): void {
    file.value = null
    opened.value = null
    progress.value = null
    foreseen.value = null
  }

  return {
    file,
    opened,
    targets,
    matching,
    country,
    chosenOrders,
    duplicates,
    ownerId,
    foreseen,
    judged,
    sent,
    sending,
    progress,
    problem,
    twoWays,
    undecided,
    open,
    rowsOf,
    bringIn,
    another,
  }
}

export type ShownImport = ReturnType<typeof useImport>

/** What a worker throws are the details themselves; nothing at all means no connection. */
function problemOf(error: unknown): ApiProblem | null {
  if (error instanceof ApiProblem) return error
  if (error === null) return new ApiProblem(OFFLINE)
  return typeof error === 'object' && 'detail' in error ? new ApiProblem(error as ProblemDetails) : null
}

/** Watches imports that are under way. */
export function useImportsUnderWay(all: Ref<ImportProgress[]>): void {
  const moving = (one: ImportProgress) => one.state === 'running' || one.state === 'taking-back'
  useIntervalFn(async () => {
    for (const one of all.value.filter(moving)) {
      const next = await api<ImportProgress>(`/api/imports/${one.id}`).catch(() => one)
      all.value = all.value.map(other => other.id === next.id ? next : other)
    }
  }, 500)
}
