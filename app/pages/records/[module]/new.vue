<script setup lang="ts">
import { familyOf, MODULE_FACTS, moduleOfSlug } from '~~/shared/modules'
import { startFrom, type RecordStart } from '~/composables/new-record'

definePageMeta({ key: route => String(route.params.module), validate: route => moduleOfSlug(String(route.params.module)) !== undefined })
const route = useRoute()
const module = moduleOfSlug(String(route.params.module))!
const one = MODULE_FACTS[module].one.toLowerCase()
const others = familyOf(module).filter(other => other !== module)

const asText = (value: unknown) => typeof value === 'string' ? value : null
const { phone, from, pipeline, stage } = route.query
const start = shallowRef<RecordStart | null>(null)
onMounted(async () => {
  const given = { phone: asText(phone), pipelineId: asText(pipeline), stageId: asText(stage) }
  // what it is made for may be gone: then it is made without
  start.value = { ...given, ...(asText(from) ? await startFrom(asText(from)!).catch(() => ({})) : {}) }
})
</script>

<template>
  <div class="new">
    <header>
      <h1>New {{ one }}</h1>
      <p class="quiet">
        <template v-if="phone">
          What was texted with this number comes onto the record.
        </template>
        Of another kind:
        <template
          v-for="(other, index) in others"
          :key="other"
        >
          <NuxtLink :to="{ path: `/records/${MODULE_FACTS[other].slug}/new`, query: route.query }">{{ MODULE_FACTS[other].one.toLowerCase() }}</NuxtLink>{{ index === others.length - 1 ? '' : index === others.length - 2 ? ' or ' : ', ' }}
        </template>
      </p>
    </header>
    <RecordForm
      v-if="start"
      :module="module"
      :start="start"
      @made="navigateTo(`/record/${$event}`)"
    />
  </div>
</template>

<style scoped>
.new { --form-ground: var(--paper); max-width: 46rem; padding: var(--space-5) var(--space-8) var(--space-10); display: grid; gap: var(--space-6); }
header { display: grid; gap: var(--space-1); }
@media (max-width: 700px) { .new { padding-inline: var(--space-5); } }
</style>
