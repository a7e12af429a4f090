<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { dayAt } from '~~/core/hours/days'
import { ROLES, type Role } from '~~/shared/permissions'
import type { LinkMade, SetUpColleague, SetUpPeople, Team } from '~~/shared/people'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { useMe } from '~/stores/me'
import { ROLE_WORDS } from '~/words/people'

/** Inviting somebody, or changing as what and in which teams a colleague works. */
const { person, teams } = defineProps<{ person: SetUpColleague | null, teams: Team[] }>()
const emit = defineEmits<{ saved: [people: SetUpPeople], invited: [made: LinkMade, name: string], close: [] }>()

const id = person?.id ?? uuid()
const me = useMe()
/** Whoever works here has what a helper must not see. */
const roles = ROLES.filter(role => role !== 'helper' || !person || person.role === 'helper')
const form = ref({
  name: person?.name ?? '',
  mail: person?.mail ?? '',
  role: person?.role ?? 'rep' as Role,
  title: person?.title ?? '',
  /** The last day on which a helper helps. */
  helpsUntil: person?.helpsUntil ? dayAt(me.me!.zone, person.helpsUntil - 1) : '',
  teamIds: [...person?.teamIds ?? []],
})
const { errors, saving, save: saveWith } = useSaving('name')

const save = () => saveWith(async () => {
  const body = { ...form.value, helpsUntil: form.value.role === 'helper' ? form.value.helpsUntil || null : null }
  if (person) return emit('saved', await api<SetUpPeople>(`/api/set-up/people/${id}`, { method: 'PUT', body }))
  emit('invited', await api<LinkMade>('/api/set-up/people/invitations', { method: 'POST', body: { ...body, id } }), body.name)
})
</script>

<template>
  <FormDialog
    :header="person ? person.name : 'Invite a colleague'"
    width="32rem"
    :written="form"
    @close="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="save"
    >
      <div class="pair">
        <LabelledField
          id="person-name"
          v-slot="{ input }"
          label="Name"
          :error="errors.name"
        >
          <InputText
            v-bind="input"
            v-model="form.name"
            autocomplete="off"
            autofocus
          />
        </LabelledField>
        <LabelledField
          id="person-title"
          v-slot="{ input }"
          label="What they do"
          :error="errors.title"
        >
          <InputText
            v-bind="input"
            v-model="form.title"
            autocomplete="off"
            placeholder="Sales"
          />
        </LabelledField>
      </div>
      <LabelledField
        id="person-mail"
        v-slot="{ input }"
        label="Mail address, with which they sign in"
        :error="errors.mail"
      >
        <InputText
          v-bind="input"
          v-model="form.mail"
          type="email"
          autocomplete="off"
        />
      </LabelledField>
      <fieldset class="choices">
        <legend>What they may do</legend>
        <label
          v-for="role in roles"
          :key="role"
          class="check"
        ><input
          v-model="form.role"
          type="radio"
          name="role"
          :value="role"
        > <span>{{ ROLE_WORDS[role].name }} <span class="quiet small">{{ ROLE_WORDS[role].about }}</span></span></label>
        <p
          v-if="errors.role"
          class="field-error"
          role="alert"
        >
          {{ errors.role }}
        </p>
      </fieldset>
      <LabelledField
        v-if="form.role === 'helper'"
        id="person-helps"
        v-slot="{ input }"
        label="Until and including"
        :error="errors.helpsUntil"
      >
        <DayField
          v-bind="input"
          v-model="form.helpsUntil"
        />
      </LabelledField>
      <fieldset
        v-else-if="teams.length > 0"
        class="choices teams"
      >
        <legend>In which teams</legend>
        <label
          v-for="team in teams"
          :key="team.id"
          class="check"
        ><input
          v-model="form.teamIds"
          type="checkbox"
          :value="team.id"
        > <span>{{ team.name }}</span></label>
        <p
          v-if="form.teamIds.length === 0"
          class="quiet small wide"
        >
          In none they answer no team’s line, see only what is theirs, and make no records.
        </p>
        <p
          v-if="errors.teamIds"
          class="field-error wide"
          role="alert"
        >
          {{ errors.teamIds }}
        </p>
      </fieldset>
      <p>
        <Button
          type="submit"
          :label="person ? 'Save' : 'Make a link for them'"
          :loading="saving"
        />
      </p>
    </form>
  </FormDialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.pair { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-5); align-items: start; }
.choices { border: 0; padding: 0; margin: 0; display: grid; gap: var(--space-3); }
.choices legend { padding: 0 0 var(--space-2); }
.teams { grid-template-columns: repeat(2, minmax(0, 1fr)); }
.teams legend, .wide { grid-column: 1 / -1; }
.check { display: grid; grid-template-columns: auto 1fr; gap: var(--space-3); align-items: baseline; cursor: pointer; }
@media (max-width: 500px) { .pair, .teams { grid-template-columns: minmax(0, 1fr); } }
</style>
