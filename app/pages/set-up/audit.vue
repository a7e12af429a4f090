<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { AUDIT_GROUPS, type AuditEntry, type AuditGroup } from '~~/shared/audit'
import { useFurther } from '~/composables/further'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { onlyWith } from '~/composables/set-up-list'
import { useMe } from '~/stores/me'
import { AUDIT_GROUP_WORDS, AUDIT_WORDS, auditAbout, auditDetails } from '~/words/audit'
import { clockToSecond, dayName } from '~/words/time'

definePageMeta({ middleware: () => onlyWith('audit.see') })

const TYPING_MS = 250
const GROUPS = Object.keys(AUDIT_GROUPS) as AuditGroup[]
const me = useMe()
const now = useNow()
const zone = computed(() => me.me!.zone)
const { found: colleagues } = useLoaded<{ id: string, name: string }[]>('/api/colleagues')

const [group, by, typed, from, to] = [ref<AuditGroup | ''>(''), ref(''), ref(''), ref(''), ref('')]
const words = refDebounced(typed, TYPING_MS)
const { entries, next, problem, busy, load, further, asked } = useFurther<AuditEntry>('/api/set-up/audit', () => ({
  group: group.value, by: by.value, words: words.value.trim(), from: from.value, to: to.value,
}))
const file = computed(() => `/api/set-up/audit/export?${new URLSearchParams(asked())}`)

/** Entries of one day stand under its name. */
const days = computed(() => {
  const found: { day: string, entries: AuditEntry[] }[] = []
  for (const entry of entries.value ?? []) {
    const day = dayName(entry.at, zone.value, now.value)
    if (found.at(-1)?.day !== day) found.push({ day, entries: [] })
    found.at(-1)!.entries.push(entry)
  }
  return found
})
/** Whoever was not let in is nobody whom one knows. */
const whoOf = ({ action, by: name }: AuditEntry) => name ?? (action === 'sign-in-refused' ? 'Somebody' : 'Plauder')
</script>

<template>
  <SetUpRoom
    title="Audit log"
    hint="Who signed in, set something up, took something out. What happens to records is on their timelines."
    what="the log"
    :loaded="entries !== null"
    :problem="problem"
    @again="load"
  >
    <template #choice>
      <div class="asked">
        <ChoiceField
          id="audit-group"
          v-model="group"
          label="About"
          :choices="[{ value: '', label: 'everything' }, ...GROUPS.map(value => ({ value, label: AUDIT_GROUP_WORDS[value] }))]"
        />
        <ChoiceField
          id="audit-by"
          v-model="by"
          label="By"
          :choices="[{ value: '', label: 'anybody' }, ...(colleagues ?? []).map(({ id, name }) => ({ value: id, label: name }))]"
        />
        <LabelledField
          id="audit-from"
          v-slot="{ input }"
          label="From"
        >
          <DayField
            :id="input.id"
            v-model="from"
          />
        </LabelledField>
        <LabelledField
          id="audit-to"
          v-slot="{ input }"
          label="Until"
        >
          <DayField
            :id="input.id"
            v-model="to"
          />
        </LabelledField>
        <LabelledField
          id="audit-words"
          v-slot="{ input }"
          label="With these words"
        >
          <InputText
            v-bind="input"
            v-model="typed"
            autocomplete="off"
          />
        </LabelledField>
        <a
          class="file"
          :href="file"
          download
        >As a file</a>
      </div>
    </template>
    <p
      v-if="entries?.length === 0"
      class="quiet"
    >
      Nothing like that stands in it.
    </p>
    <section
      v-for="one in days"
      :key="one.day"
    >
      <h2>{{ one.day }}</h2>
      <ol>
        <li
          v-for="entry in one.entries"
          :key="entry.id"
          class="line"
        >
          <span class="quiet figures">{{ clockToSecond(entry.at, zone) }}</span>
          <div>
            <p><strong>{{ whoOf(entry) }}</strong> {{ AUDIT_WORDS[entry.action] ?? entry.action }}<template v-if="auditAbout(entry)">: {{ auditAbout(entry) }}</template></p>
            <details v-if="Object.keys(entry.details).length > 0">
              <summary class="quiet small">
                Details
              </summary>
              <dl>
                <div
                  v-for="{ name, value } in auditDetails(entry)"
                  :key="name"
                >
                  <dt>{{ name }}</dt>
                  <dd>{{ value }}</dd>
                </div>
              </dl>
            </details>
          </div>
        </li>
      </ol>
    </section>
    <p v-if="next">
      <button
        type="button"
        class="plain-button"
        :disabled="busy"
        @click="further"
      >
        Earlier entries
      </button>
    </p>
  </SetUpRoom>
</template>

<style scoped>
.asked { display: flex; flex-wrap: wrap; gap: var(--space-5); align-items: end; }
.file { padding-bottom: var(--space-3); }
section { max-width: 56rem; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
ol { list-style: none; padding: 0; margin: 0; }
.line { display: grid; grid-template-columns: 5.5rem minmax(0, 1fr); gap: var(--space-4); border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.line p, dd { overflow-wrap: anywhere; }
summary { cursor: pointer; width: fit-content; }
dl div { display: grid; grid-template-columns: 9rem minmax(0, 1fr); gap: var(--space-4); padding: var(--space-1) 0; }
dt { color: var(--quiet); }
dd { margin: 0; }
</style>
