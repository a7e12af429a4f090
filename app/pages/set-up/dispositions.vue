<script setup lang="ts">
import type { Family } from '~~/core/call/family'
import { DISPOSITION_MODULES, type OwnDisposition } from '~~/shared/calling'
import type { PersonModule } from '~~/shared/modules'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { onlyWith, useSetUpList } from '~/composables/set-up-list'
import { saidToReader } from '~/words/reader'

definePageMeta({ middleware: () => onlyWith('disposition.edit') })

const module = ref<PersonModule>('lead')
const {
  list: dispositions,
  problem,
  trying,
  load,
} = useSetUpList<OwnDisposition>(() => ({ path: '/api/set-up/dispositions', query: { module: module.value } }))
/** One, a new one, or none. */
const editing = shallowRef<OwnDisposition | 'new' | null>(null)

const FAMILIES: { family: Family, name: string }[] = [
  { family: 'reached', name: 'Reached' },
  { family: 'not-reached', name: 'Not reached' },
]
const inUse = computed(() => dispositions.value?.filter(({ retired }) => !retired) ?? [])
const retired = computed(() => dispositions.value?.filter(one => one.retired) ?? [])
const of = (family: Family) => inUse.value.filter(one => one.family === family)

/** Moves one among those of its family; the order of all is told. */
function move(one: OwnDisposition, by: number): Promise<unknown> {
  const family = of(one.family)
  const other = family[family.indexOf(one) + by]
  if (!other) return Promise.resolve()
  const ids = inUse.value.map(({ id }) => id === one.id ? other.id : id === other.id ? one.id : id)
  return trying(() => api<OwnDisposition[]>('/api/set-up/dispositions/order', { method: 'PUT', body: { module: module.value, ids } }))
}
const turn = ({ id }: OwnDisposition, retire: boolean) =>
  trying(() => api<OwnDisposition[]>(`/api/set-up/dispositions/${id}/retired`, { method: 'PUT', body: { retired: retire } }))

function saved(all: OwnDisposition[]): void {
  dispositions.value = all
  editing.value = null
}

useKeys([{ keys: 'c', shown: 'C', what: 'Make a new disposition', act: () => editing.value = 'new' }])
</script>

<template>
  <SetUpRoom
    title="Dispositions"
    hint="The keys that say how a call went, and what each sets off."
    what="the dispositions"
    :loaded="dispositions !== null"
    :problem="problem"
    @again="load"
  >
    <template #choice>
      <ModuleChoice
        v-model="module"
        :modules="DISPOSITION_MODULES"
        makes="New disposition"
        @make="editing = 'new'"
      />
    </template>
    <p
      v-if="dispositions!.length === 0"
      class="quiet"
    >
      There are none yet. “No answer”, with a text that says so and a call-back the next day, is a good first one.
    </p>
    <template
      v-for="{ family, name } in FAMILIES"
      :key="family"
    >
      <section v-if="of(family).length > 0">
        <h2>{{ name }}</h2>
        <ul>
          <li
            v-for="(one, place) in of(family)"
            :key="one.id"
            class="one"
          >
            <span
              class="letter"
              :class="`key-${one.colour}`"
            >{{ one.letter.toUpperCase() }}</span>
            <strong>{{ one.name }}</strong>
            <span class="does"><template v-if="one.purpose">Only for {{ one.purpose }}. </template>{{ one.words.length > 0 ? saidToReader(one.words.join('. ')) : 'Only the note on the timeline' }}</span>
            <span class="ways">
              <button
                type="button"
                class="move"
                :aria-label="`${one.name} further up`"
                :disabled="place === 0"
                @click="move(one, -1)"
              >↑</button>
              <button
                type="button"
                class="move"
                :aria-label="`${one.name} further down`"
                :disabled="place === of(family).length - 1"
                @click="move(one, 1)"
              >↓</button>
              <button
                type="button"
                class="plain-button"
                :aria-label="`Change ${one.name}`"
                @click="editing = one"
              >Change</button>
              <button
                type="button"
                class="plain-button calm"
                :aria-label="`Retire ${one.name}`"
                @click="turn(one, true)"
              >Retire</button>
            </span>
          </li>
        </ul>
      </section>
    </template>
    <section v-if="retired.length > 0">
      <h2>Retired</h2>
      <ul>
        <li
          v-for="one in retired"
          :key="one.id"
          class="one gone"
        >
          <span class="letter">{{ one.letter.toUpperCase() }}</span>
          <span>{{ one.name }}</span>
          <span class="does" />
          <button
            type="button"
            class="plain-button"
            :aria-label="`Take ${one.name} up again`"
            @click="turn(one, false)"
          >
            Take up again
          </button>
        </li>
      </ul>
    </section>
    <DispositionEditor
      v-if="editing"
      :key="editing === 'new' ? 'new' : editing.id"
      :module="module"
      :disposition="editing === 'new' ? null : editing"
      @saved="saved"
      @close="editing = null"
    />
  </SetUpRoom>
</template>

<style scoped>
h2 { font-size: var(--size-text); padding-bottom: var(--space-2); }
.one { display: grid; grid-template-columns: 1.6rem 13rem minmax(0, 1fr) auto; gap: var(--space-5); align-items: baseline; border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.letter { font-family: var(--heading); font-weight: 700; }
.does { color: var(--quiet); }
.gone { color: var(--quiet); }
.ways { display: flex; gap: var(--space-5); align-items: baseline; white-space: nowrap; }
.move { border: 0; background: none; padding: 0 var(--space-1); cursor: pointer; color: var(--quiet); }
.move:hover:not(:disabled) { color: var(--accent); }
.move:disabled { opacity: 0.35; cursor: default; }
@media (max-width: 700px) { .one { grid-template-columns: 1.6rem minmax(0, 1fr); } .does, .ways { grid-column: 2; } }
</style>
