<script setup lang="ts">
import type { TemplateDetail } from '~~/shared/template'
import { MODULE_FACTS } from '~~/shared/modules'
import { api, ApiProblem } from '~/composables/api'
import { useKeys } from '~/composables/keys'

const route = useRoute()
const templates = shallowRef<TemplateDetail[] | null>(null)
const problem = ref('')
const words = ref('')
const chosenId = ref<string | null>(typeof route.query.id === 'string' ? route.query.id : null)
const making = ref(false)

async function load(): Promise<void> {
  try {
    templates.value = await api<TemplateDetail[]>('/api/templates')
    problem.value = ''
  }
  catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error.message
  }
}
void load()

const found = computed(() => templates.value?.filter(({ name, body }) => `${name} ${body}`.toLowerCase().includes(words.value.trim().toLowerCase())) ?? [])
const chosen = computed(() => making.value ? null : found.value.find(template => template.id === chosenId.value) ?? found.value[0] ?? null)

function make(): void {
  making.value = true
  chosenId.value = null
}

async function saved(id: string): Promise<void> {
  await load()
  making.value = false
  chosenId.value = id
}

useKeys([{ keys: 'c', shown: 'C', what: 'Make a new template', act: make }])
</script>

<template>
  <div class="templates">
    <aside
      class="all"
      aria-label="All templates"
    >
      <header class="head">
        <h1>Templates</h1>
        <button
          type="button"
          class="plain-button"
          @click="make"
        >
          New <kbd>C</kbd>
        </button>
      </header>
      <label
        for="template-filter"
        class="heard-only"
      >Find a template</label>
      <input
        id="template-filter"
        v-model="words"
        class="filter"
        type="search"
        placeholder="Find by name or words"
      >
      <LoadProblem
        v-if="problem"
        :problem="problem"
        again="Load them again"
        @again="load"
      />
      <p
        v-else-if="!templates"
        class="quiet pad"
        role="status"
      >
        Loading the templates…
      </p>
      <p
        v-else-if="found.length === 0"
        class="quiet pad"
      >
        {{ templates.length === 0 ? 'A template is a text you write once and send to many, each in their own name. Make the first one.' : 'No template has these words.' }}
      </p>
      <ul>
        <li
          v-for="template in found"
          :key="template.id"
        >
          <button
            type="button"
            class="one"
            :class="{ here: chosen?.id === template.id }"
            :aria-current="chosen?.id === template.id ? 'true' : undefined"
            @click="making = false; chosenId = template.id"
          >
            <strong>{{ template.name }}</strong>
            <span class="small quiet">{{ template.modules.map(module => MODULE_FACTS[module].many.toLowerCase()).join(', ') }}</span>
          </button>
        </li>
      </ul>
    </aside>
    <TemplateEditor
      v-if="templates && (making || chosen)"
      :key="chosen ? `${chosen.id} ${chosen.version}` : 'new'"
      :template="chosen"
      @saved="saved"
    />
  </div>
</template>

<style scoped>
.templates { display: grid; grid-template-columns: 19rem minmax(0, 1fr); min-height: 100%; }
.all { border-right: 1px solid var(--rule); padding: 0.85rem 0 2rem 1.5rem; }
.head { display: flex; justify-content: space-between; align-items: baseline; padding-right: 1rem; }
.filter { width: calc(100% - 1rem); border: 1px solid var(--field-rule); border-radius: 6px; background: var(--surface); padding: 0.35rem 0.65rem; margin: 0.7rem 0; }
.filter::placeholder { color: var(--quiet); opacity: 1; }
.one { display: grid; width: 100%; text-align: left; border: 0; border-top: 1px solid var(--rule); border-right: 3px solid transparent; background: none; padding: 0.5rem 0.5rem 0.5rem 0; cursor: pointer; }
.one:hover { background: var(--hover); }
.one.here { border-right-color: var(--mulberry); color: var(--mulberry); }
.pad { padding: 0.5rem 1rem 0.5rem 0; }
@media (max-width: 800px) { .templates { grid-template-columns: 1fr; } .all { border-right: 0; padding-inline: 0.75rem; } }
</style>
