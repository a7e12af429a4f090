<script setup lang="ts">
import { MODULE_FACTS, moduleOfSlug } from '~~/shared/modules'
import { useImport } from '~/composables/import'
import { many } from '~/words/count'

definePageMeta({ key: route => String(route.params.module), validate: route => moduleOfSlug(String(route.params.module)) !== undefined })

const slug = String(useRoute().params.module)
const module = moduleOfSlug(slug)!
const several = MODULE_FACTS[module].many.toLowerCase()
const shown = useImport(module)
const {
  file,
  opened,
  targets,
  matching,
  country,
  chosenOrders,
  duplicates,
  ownerId,
  foreseen,
  sent,
  sending,
  progress,
  problem,
  twoWays,
} = shown

const useful = computed(() => foreseen.value ? foreseen.value.counts.new + foreseen.value.counts.joined : 0)
const nothingMatched = computed(() => matching.value.every(key => key === null))
const DELIMITERS: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }
const about = computed(() => opened.value && [
  many(opened.value.total, 'row', 'rows'),
  opened.value.delimiter ? `cells between ${DELIMITERS[opened.value.delimiter]}` : 'vCards',
  opened.value.encoding,
].join(', '))
</script>

<template>
  <div class="page">
    <header class="head">
      <h1>Import {{ several }}</h1>
      <p class="quiet">
        <template v-if="opened">
          <strong>{{ file?.name }}</strong>: {{ about }}.
          <button
            v-if="!sending"
            type="button"
            class="plain-button calm"
            @click="shown.another"
          >
            Another file
          </button>
        </template>
        <NuxtLink
          v-else
          :to="`/records/${slug}`"
        >
          Back to the list
        </NuxtLink>
      </p>
    </header>
    <p
      v-if="problem"
      class="notice failed"
      role="alert"
    >
      {{ problem }}
    </p>
    <FileDrop
      v-if="!opened"
      @file="shown.open($event)"
    />
    <template v-else-if="!progress">
      <p
        v-for="warning in opened.warnings"
        :key="warning"
        class="notice failed"
        role="alert"
      >
        {{ warning }}
      </p>
      <label
        v-if="opened.headed !== null && !sending"
        class="check"
      ><input
        type="checkbox"
        :checked="opened.headed"
        @change="shown.open(file!, ($event.target as HTMLInputElement).checked)"
      > The first row says what the columns are</label>
      <div class="two">
        <ColumnMatching
          v-model="matching"
          :file="opened"
          :targets="targets"
        />
        <ImportRulesForm
          v-model:country="country"
          v-model:chosen-orders="chosenOrders"
          v-model:duplicates="duplicates"
          v-model:owner-id="ownerId"
          :two-ways="twoWays"
          :targets="targets"
        />
      </div>
      <p
        v-if="nothingMatched"
        class="quiet"
      >
        Say of at least one column what it becomes.
      </p>
      <FatePreview
        v-else
        :shown="shown"
      />
      <div class="go">
        <p
          v-if="sending"
          class="quiet figures"
          role="status"
        >
          Sent {{ sent.toLocaleString('en-US') }} of {{ opened.total.toLocaleString('en-US') }} rows. Nothing is made before all of them are there.
        </p>
        <Button
          :label="foreseen ? `Import ${many(useful, 'row', 'rows')}` : 'Import'"
          :disabled="!foreseen || useful === 0"
          :loading="sending"
          @click="shown.bringIn"
        />
      </div>
    </template>
    <p v-else>
      It goes on by itself; you may leave this page. <NuxtLink :to="`/records/${slug}`">
        To the {{ several }}
      </NuxtLink>
    </p>
    <ImportList
      :module="module"
      :newest="progress"
    />
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-10); display: grid; grid-template-columns: minmax(0, 1fr); gap: var(--space-6); max-width: 78rem; }
.head { display: flex; align-items: baseline; gap: var(--space-6); flex-wrap: wrap; }
.two { display: grid; grid-template-columns: minmax(0, 1.35fr) minmax(0, 1fr); gap: var(--space-9); align-items: start; }
.go { position: sticky; bottom: 0; display: flex; justify-content: flex-end; align-items: center; gap: var(--space-6); padding: var(--space-4) 0; background: var(--paper); border-top: 1px solid var(--rule); }
@media (max-width: 900px) { .two { grid-template-columns: minmax(0, 1fr); } .page { padding-inline: var(--space-5); } }
</style>
