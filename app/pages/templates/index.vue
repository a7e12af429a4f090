<script setup lang="ts">
import { PhStar } from '@phosphor-icons/vue'
import { MODULE_FACTS } from '~~/shared/modules'
import type { TemplateDetail } from '~~/shared/template'
import { useKeys } from '~/composables/keys'
import { useTemplateList } from '~/composables/template-list'
import { useMe } from '~/stores/me'

const me = useMe()
const route = useRoute()
const { templates, problem, words, found, folders, shown, hidden, first, showMore, load, favour, retire, retired, loadRetired, restore } = useTemplateList()
const chosenId = ref<string | null>(typeof route.query.id === 'string' ? route.query.id : null)
const making = ref(false)
/** The one that is about to be taken away from everybody. */
const retiring = ref<string | null>(null)

/** Searching leaves the open one where it is: somebody may be writing in it. */
const chosen = computed(() => making.value ? null : templates.value?.find(({ id }) => id === chosenId.value) ?? first.value)

const editor = useTemplateRef<{ mayLeave: () => Promise<boolean> }>('editor')
const mayLeave = async () => await editor.value?.mayLeave() ?? true

async function open(id: string | undefined): Promise<void> {
  if (!id || id === chosen.value?.id || !await mayLeave()) return
  making.value = false
  chosenId.value = id
}

async function make(): Promise<void> {
  if (making.value || !await mayLeave()) return
  making.value = true
  chosenId.value = null
}

async function saved(id: string): Promise<void> {
  await load()
  making.value = false
  chosenId.value = id
}

const sayUses = ({ usedBy }: TemplateDetail) =>
  usedBy.map(({ name, module }) => `“${name}” of ${MODULE_FACTS[module].many.toLowerCase()}`).join(', ')

useKeys(me.may('template.edit') ? [{ keys: 'c', shown: 'C', what: 'Make a new template', act: () => void make() }] : [])
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
          v-if="me.may('template.edit')"
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
        class="plain-field filter"
        type="search"
        placeholder="Find by name or words"
        @keydown.enter.prevent="open(shown[0]?.templates[0]?.id)"
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
      <section
        v-for="folder in shown"
        :key="folder.name"
        class="folder"
      >
        <h2
          v-if="folder.name"
          class="small quiet"
        >
          {{ folder.name }}
        </h2>
        <ul>
          <li
            v-for="template in folder.templates"
            :key="template.id"
          >
            <button
              type="button"
              class="one"
              :class="{ here: chosen?.id === template.id }"
              :aria-current="chosen?.id === template.id ? 'true' : undefined"
              @click="open(template.id)"
            >
              <strong><PhStar
                v-if="template.favourite"
                size="14"
                weight="fill"
                class="star"
                aria-label="Favourite"
              /> {{ template.name }}</strong>
              <span class="small quiet">{{ [template.modules.map(module => MODULE_FACTS[module].many.toLowerCase()).join(', '), template.audience === 'mine' ? 'for you alone' : template.team?.name].filter(Boolean).join('; ') }}</span>
            </button>
          </li>
        </ul>
      </section>
      <button
        v-if="hidden > 0"
        type="button"
        class="plain-button pad"
        @click="showMore"
      >
        Show more of the {{ hidden }} others
      </button>
      <RetiredTemplates
        v-if="retired"
        :retired="retired"
        @restore="restore"
      />
      <p class="files small">
        <button
          v-if="!retired"
          type="button"
          class="plain-button calm"
          @click="loadRetired"
        >
          Retired ones
        </button>
      </p>
      <TemplateFiles
        :found="found"
        @taken-in="load"
      />
    </aside>
    <TemplateEditor
      v-if="templates && (making || chosen)"
      ref="editor"
      :key="chosen ? `${chosen.id} ${chosen.version}` : 'new'"
      :template="chosen"
      :folders="folders"
      @saved="saved"
    >
      <template #acts>
        <template v-if="chosen">
          <button
            type="button"
            class="plain-button"
            @click="favour(chosen)"
          >
            {{ chosen.favourite ? 'Remove from favourites' : 'Add to favourites' }}
          </button>
          <span
            v-if="chosen.usedBy.length > 0"
            class="quiet"
          >Sent by {{ sayUses(chosen) }}</span>
          <button
            v-else-if="chosen.mayEdit && retiring !== chosen.id"
            type="button"
            class="plain-button calm"
            @click="retiring = chosen.id"
          >
            Retire
          </button>
          <span
            v-else-if="chosen.mayEdit"
            role="alert"
          >Nobody is offered it any more. <button
            type="button"
            class="plain-button"
            @click="retire(chosen)"
          >Retire it</button> <button
            type="button"
            class="plain-button calm"
            @click="retiring = null"
          >Keep it</button></span>
        </template>
      </template>
    </TemplateEditor>
  </div>
</template>

<style scoped>
.templates { display: grid; grid-template-columns: 19rem minmax(0, 1fr); min-height: 100%; }
.all { border-right: 1px solid var(--rule); padding: var(--space-5) 0 var(--space-9) var(--space-8); }
.head { display: flex; justify-content: space-between; align-items: baseline; padding-right: var(--space-6); }
.filter { width: calc(100% - 1rem); padding: var(--space-2) var(--space-4); margin: var(--space-4) 0; }
.filter::placeholder { color: var(--quiet); opacity: 1; }
.folder { padding-bottom: var(--space-4); }
.folder h2 { font-family: var(--reading); font-weight: 400; padding-bottom: var(--space-hair); }
.one { display: grid; width: 100%; text-align: left; border: 0; border-top: 1px solid var(--rule); border-right: 3px solid transparent; background: none; padding: var(--space-2) var(--space-3) var(--space-2) 0; cursor: pointer; }
.one:hover { background: var(--hover); }
.one.here { border-right-color: var(--accent); color: var(--accent); }
.star { color: var(--waiting); vertical-align: -1px; }
.files { padding-top: var(--space-2); }
.pad { padding: var(--space-3) var(--space-6) var(--space-3) 0; }
@media (max-width: 800px) { .templates { grid-template-columns: minmax(0, 1fr); } .all { border-right: 0; padding-inline: var(--space-5); } }
</style>
