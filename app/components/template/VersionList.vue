<script setup lang="ts">
import { readable } from '~~/core/template/readable'
import { changesBetween } from '~~/core/text/changes'
import type { TemplateDetail, TemplateVersion, VersionResult } from '~~/shared/template'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { sayDifference, sayShare } from '~/words/shares'
import { ago } from '~/words/time'

/** Every wording that a template had: who wrote it when, what was different, what it did, and a way back to it. */
const { template, labelOf } = defineProps<{ template: TemplateDetail, labelOf: (path: string) => string }>()
const emit = defineEmits<{ restore: [version: TemplateVersion] }>()

const now = useNow()
const { found, problem, load } = useLoaded(
  () =>
    Promise.all([
      api<TemplateVersion[]>(`/api/templates/${template.id}/versions`),
      api<VersionResult[]>(`/api/templates/${template.id}/results`),
    ]),
  ([all]) => (compared.value = all.slice(0, 2).map(({ version }) => version)),
)
const versions = computed(() => found.value?.[0] ?? null)
const results = computed(() => found.value?.[1] ?? [])

/** The two that are compared, the later one first. */
const compared = ref<number[]>([])
const resultOf = (version: number) => results.value.find(one => one.version === version)
const verdict = computed(() => {
  const [one, other] = compared.value.map(resultOf)
  return one && other && one !== other ? sayDifference(one, other) : ''
})

/** As people read it, not as it is stored. */
const wordingOf = (version: number) => readable(versions.value?.find(one => one.version === version)?.body ?? '', labelOf)
const difference = computed(() => {
  const [one, other] = compared.value
  return one === undefined || other === undefined || one === other ? [] : changesBetween(wordingOf(other), wordingOf(one))
})

/** What each changed against the one before it. */
const shown = computed(
  () =>
    versions.value?.map((version, place) => ({
      ...version,
      changes: changesBetween(wordingOf((versions.value![place + 1] ?? version).version), wordingOf(version.version)),
    })) ?? [],
)
</script>

<template>
  <section aria-label="Versions">
    <h2>Versions</h2>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Load them again"
      @again="load"
    />
    <div
      v-if="shown.length > 1"
      class="compare"
    >
      <p>
        Compare <select
          v-model="compared[0]"
          aria-label="One version"
        >
          <option
            v-for="one in shown"
            :key="one.version"
            :value="one.version"
          >
            version {{ one.version }}
          </option>
        </select> with <select
          v-model="compared[1]"
          aria-label="Another version"
        >
          <option
            v-for="one in shown"
            :key="one.version"
            :value="one.version"
          >
            version {{ one.version }}
          </option>
        </select>
      </p>
      <p role="status">
        {{ verdict }}
      </p>
      <p
        v-if="difference.length > 0"
        class="words"
      >
        <ChangedWords :changes="difference" />
      </p>
    </div>
    <ol class="versions">
      <li
        v-for="(version, place) in shown"
        :key="version.version"
      >
        <details :open="place === 0 && shown.length > 1">
          <summary>
            <strong>{{ version.version }}</strong> {{ version.by }}, {{ ago(version.at, now) }}
          </summary>
          <p
            v-if="resultOf(version.version)"
            class="small quiet figures"
          >
            Sent {{ resultOf(version.version)!.sent }}. Delivered {{ sayShare(resultOf(version.version)!.delivered, resultOf(version.version)!.settled) }}, answered within three days {{ sayShare(resultOf(version.version)!.answered, resultOf(version.version)!.waited) }}, opted out {{ sayShare(resultOf(version.version)!.optedOut, resultOf(version.version)!.waited) }}.
          </p>
          <p class="words">
            <ChangedWords :changes="version.changes" />
          </p>
          <button
            v-if="template.mayEdit && place > 0"
            type="button"
            class="plain-button"
            @click="emit('restore', version)"
          >
            Go back to this wording
          </button>
        </details>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.compare { display: grid; gap: var(--space-2); padding: var(--space-2) 0; }
.compare select { border: 0; border-bottom: 1px solid var(--field-rule); background: none; color: var(--ink); }
.versions { display: grid; gap: var(--space-2); padding-top: var(--space-2); }
summary { cursor: pointer; }
.words { white-space: pre-wrap; overflow-wrap: anywhere; padding: var(--space-1) 0 var(--space-1) var(--space-5); }
</style>
