<script setup lang="ts">
import { CHANGEABLE, type Changeable, type Scope } from '~~/shared/permissions'
import type { PersonRight, RightsOfAll } from '~~/shared/people'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { RIGHT_WORDS, sayScope } from '~/words/rights'

/** What single colleagues may do more, or less, than others in their role. */
const { rights } = defineProps<{ rights: RightsOfAll }>()
const emit = defineEmits<{ changed: [rights: RightsOfAll] }>()

const { errors, saving, save } = useSaving('scope')
const form = ref<{ colleagueId: string, permission: Changeable | '', scope: Scope | '' }>({ colleagueId: '', permission: '', scope: '' })
const scopes = computed<readonly Scope[]>(() => form.value.permission ? CHANGEABLE[form.value.permission] : [])
watch(() => form.value.permission, () => form.value.scope = '')

const put = (body: { colleagueId: string, permission: Changeable | '', scope: Scope | null }) => save(async () => {
  emit('changed', await api<RightsOfAll>('/api/set-up/rights/people', { method: 'PUT', body }))
  form.value = { colleagueId: '', permission: '', scope: '' }
})
const add = () => put({ ...form.value, scope: form.value.scope || null })
const asTheirRole = ({ colleagueId, permission }: PersonRight) => put({ colleagueId, permission, scope: null })
</script>

<template>
  <section>
    <h2>For one colleague alone</h2>
    <p class="quiet small">
      More, or less, than others in their role. It ends when they become something else.
    </p>
    <ul v-if="rights.people.length > 0">
      <li
        v-for="one in rights.people"
        :key="`${one.colleagueId} ${one.permission}`"
        class="row"
      >
        <strong>{{ one.name }}</strong>
        <span>{{ RIGHT_WORDS[one.permission].name }}: {{ sayScope(one.permission, one.scope) }} <span class="quiet small">others in their role: {{ sayScope(one.permission, one.usual) }}</span></span>
        <button
          type="button"
          class="plain-button"
          :aria-label="`${RIGHT_WORDS[one.permission].name}: ${one.name} again as others in their role`"
          :disabled="saving"
          @click="asTheirRole(one)"
        >
          As others again
        </button>
      </li>
    </ul>
    <form
      class="add"
      novalidate
      @submit.prevent="add"
    >
      <ChoiceField
        id="own-right-who"
        v-model="form.colleagueId"
        label="Who"
        none="Choose a colleague"
        :choices="rights.colleagues.map(({ id, name }) => ({ value: id, label: name }))"
        :error="errors.colleagueId"
      />
      <ChoiceField
        id="own-right-what"
        v-model="form.permission"
        label="May"
        none="Choose a right"
        :choices="rights.table.map(({ permission }) => ({ value: permission, label: RIGHT_WORDS[permission].name }))"
        :error="errors.permission"
      />
      <ChoiceField
        id="own-right-scope"
        v-model="form.scope"
        label="With whose things"
        none="Choose how far"
        :choices="scopes.map(value => ({ value, label: form.permission ? sayScope(form.permission, value) : '' }))"
        :error="errors.scope"
      />
      <Button
        type="submit"
        label="Set it for them"
        severity="secondary"
        :loading="saving"
        :disabled="!form.colleagueId || !form.permission || !form.scope"
      />
    </form>
  </section>
</template>

<style scoped>
section { max-width: 62rem; padding-block: var(--space-5); }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
ul { padding-top: var(--space-3); }
.row { display: grid; grid-template-columns: minmax(0, 12rem) minmax(0, 1fr) auto; gap: var(--space-2) var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; align-items: baseline; }
.add { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)) auto; gap: var(--space-5); align-items: end; border-top: 1px solid var(--rule); padding-top: var(--space-4); }
@media (max-width: 700px) { .row, .add { grid-template-columns: minmax(0, 1fr); } }
</style>
