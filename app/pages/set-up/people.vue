<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { Invited, LinkMade, SetUpColleague, SetUpPeople } from '~~/shared/people'
import { api } from '~/composables/api'
import { useNow } from '~/composables/now'
import { useLoaded } from '~/composables/loaded'
import { useSaving } from '~/composables/saving'
import { onlyWith } from '~/composables/set-up-list'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'
import { ROLE_WORDS } from '~/words/people'
import { ago, shortDay } from '~/words/time'

definePageMeta({ middleware: () => onlyWith('people.edit') })

const me = useMe()
const now = useNow()
const { found: people, problem: notLoaded, load } = useLoaded<SetUpPeople>('/api/set-up/people')
const { problem, trying, busy } = useTrying()
const { errors: teamErrors, saving: savingTeam, save: saveTeam } = useSaving('name')

/** Who is being changed; `new`: somebody who is invited. */
const editing = shallowRef<SetUpColleague | 'new' | null>(null)
/** Who is about to leave. */
const leaving = shallowRef<SetUpColleague | null>(null)
/** Whose second step is about to be taken away. */
const losing = shallowRef<SetUpColleague | null>(null)
const here = computed(() => people.value?.colleagues.filter(({ leftAt }) => leftAt === null) ?? [])
const left = computed(() => people.value?.colleagues.filter(({ leftAt }) => leftAt !== null) ?? [])
const shown = shallowRef<(LinkMade & { name: string }) | null>(null)
const teamName = ref('')

const zone = computed(() => me.me!.zone)
const teamsOf = (ids: string[]) => ids.map(id => people.value?.teams.find(team => team.id === id)?.name).filter(Boolean).join(', ') || 'in no team'

const helps = (until: number) => until <= now.value ? 'the time to help is over' : `until ${shortDay(until - 1, zone.value)}`

function show(made: LinkMade, name: string): void {
  people.value = made.people
  editing.value = null
  shown.value = { ...made, name }
}
const linkFor = (path: string, name: string) => trying(async () => show(await api<LinkMade>(path, { method: 'POST' }), name))
const withdraw = ({ id }: Invited) =>
  trying(async () => people.value = await api<SetUpPeople>(`/api/set-up/people/invitations/${id}`, { method: 'DELETE' }))

function saved(all: SetUpPeople): void {
  people.value = all
  editing.value = null
  // what I may do myself may have changed
  void me.load()
}

const takeAway = ({ id }: SetUpColleague) => trying(async () => {
  people.value = await api<SetUpPeople>(`/api/set-up/people/${id}/second-step`, { method: 'DELETE' })
  losing.value = null
})

function gone(all: SetUpPeople): void {
  people.value = all
  leaving.value = null
}

const addTeam = () => saveTeam(async () => {
  people.value = await api<SetUpPeople>('/api/set-up/teams', { method: 'POST', body: { id: uuid(), name: teamName.value } })
  teamName.value = ''
})

/** The team that is being called something else, and how. */
const renaming = ref<{ id: string, name: string } | null>(null)
const rename = () => trying(async () => {
  const { id, name } = renaming.value!
  people.value = await api<SetUpPeople>(`/api/set-up/teams/${id}`, { method: 'PUT', body: { name } })
  renaming.value = null
})
</script>

<template>
  <SetUpRoom
    title="People"
    hint="Who works here, in which teams, and as what."
    what="the people"
    :loaded="people !== null"
    :problem="notLoaded || problem"
    @again="load"
  >
    <section v-if="people">
      <ul>
        <PersonLine
          v-for="one in here"
          :key="one.id"
          :name="one.name"
          :title="one.title"
          :mail="one.mail"
          :role="ROLE_WORDS[one.role].name"
          :teams="one.helpsUntil ? helps(one.helpsUntil) : teamsOf(one.teamIds)"
          :standing="one.here ? `signed in ${ago(one.here, now)}` : 'not signed in'"
        >
          <button
            type="button"
            class="plain-button"
            :aria-label="`Change ${one.name}`"
            @click="editing = one"
          >
            Change
          </button>
          <button
            type="button"
            class="plain-button calm"
            :aria-label="`A new password for ${one.name}`"
            :disabled="busy"
            @click="linkFor(`/api/set-up/people/${one.id}/password`, one.name)"
          >
            New password
          </button>
          <button
            v-if="one.secondStep"
            type="button"
            class="plain-button calm"
            :aria-label="`Take the second step of ${one.name} away`"
            @click="losing = one"
          >
            Lost telephone
          </button>
          <button
            v-if="one.id !== me.me!.id"
            type="button"
            class="plain-button calm"
            :aria-label="`${one.name} leaves`"
            @click="leaving = one"
          >
            Leaves
          </button>
          <RemoveQuestion
            v-if="losing?.id === one.id"
            class="lost"
            @remove="takeAway(one)"
            @keep="losing = null"
          >
            {{ one.name }} signs in with the password alone then, and can set a second step up anew. Make sure that it is {{ one.name }} who asks.
          </RemoveQuestion>
        </PersonLine>
      </ul>
      <p class="below">
        <Button
          label="Invite a colleague"
          @click="editing = 'new'"
        />
      </p>
    </section>
    <section v-if="people && people.invited.length > 0">
      <h2>Were given a link</h2>
      <ul>
        <PersonLine
          v-for="one in people.invited"
          :key="one.id"
          :name="one.name"
          :title="one.title"
          :mail="one.mail"
          :role="one.newPassword ? 'for a new password' : ROLE_WORDS[one.role].name"
          :teams="one.newPassword ? null : one.helpsUntil ? helps(one.helpsUntil) : teamsOf(one.teamIds)"
          :standing="one.endsAt < now ? 'the link has run out' : `works until ${shortDay(one.endsAt, zone)}`"
          :over="one.endsAt < now"
        >
          <button
            type="button"
            class="plain-button"
            :aria-label="`Another link for ${one.name}`"
            :disabled="busy"
            @click="linkFor(`/api/set-up/people/invitations/${one.id}/link`, one.name)"
          >
            Another link
          </button>
          <button
            type="button"
            class="plain-button calm"
            :aria-label="`Withdraw the link of ${one.name}`"
            :disabled="busy"
            @click="withdraw(one)"
          >
            Withdraw
          </button>
        </PersonLine>
      </ul>
    </section>
    <section v-if="people">
      <h2>Teams</h2>
      <ul>
        <li
          v-for="team in people.teams"
          :key="team.id"
          class="row"
        >
          <form
            v-if="renaming?.id === team.id"
            class="rename"
            @submit.prevent="rename"
            @keydown.esc.stop="renaming = null"
          >
            <input
              v-model="renaming.name"
              class="plain-field"
              :aria-label="`What ${team.name} is called`"
            >
            <button
              type="submit"
              class="plain-button"
              :disabled="busy"
            >
              Save
            </button>
          </form>
          <strong v-else>{{ team.name }}</strong>
          <span class="quiet">{{ many(team.people, 'colleague', 'colleagues') }}, {{ many(team.lines, 'line', 'lines') }}</span>
          <span />
          <span class="ways">
            <button
              type="button"
              class="plain-button"
              :aria-label="`Call ${team.name} something else`"
              @click="renaming = { id: team.id, name: team.name }"
            >
              Rename
            </button>
          </span>
        </li>
      </ul>
      <form
        class="below add"
        novalidate
        @submit.prevent="addTeam"
      >
        <LabelledField
          id="team-name"
          v-slot="{ input }"
          label="A further team"
          :error="teamErrors.name"
        >
          <InputText
            v-bind="input"
            v-model="teamName"
            autocomplete="off"
          />
        </LabelledField>
        <Button
          type="submit"
          label="Add the team"
          severity="secondary"
          :loading="savingTeam"
        />
      </form>
    </section>
    <section v-if="left.length > 0">
      <h2>Have left</h2>
      <ul>
        <PersonLine
          v-for="one in left"
          :key="one.id"
          :name="one.name"
          :title="one.title"
          :mail="one.mail"
          :role="ROLE_WORDS[one.role].name"
          :teams="null"
          :standing="`left on ${shortDay(one.leftAt!, zone)}`"
        >
          <button
            type="button"
            class="plain-button calm"
            :aria-label="`Take ${one.name} on again`"
            :disabled="busy"
            @click="linkFor(`/api/set-up/people/${one.id}/back`, one.name)"
          >
            Take on again
          </button>
        </PersonLine>
      </ul>
    </section>
    <LazyPersonLeaves
      v-if="leaving && people"
      :person="leaving"
      :others="here.filter(({ id, role }) => id !== leaving!.id && role !== 'helper')"
      @left="gone"
      @close="leaving = null"
    />
    <LazyPersonEditor
      v-if="editing && people"
      :person="editing === 'new' ? null : editing"
      :teams="people.teams"
      @saved="saved"
      @invited="show"
      @close="editing = null"
    />
    <LazyLinkShown
      v-if="shown"
      :name="shown.name"
      :link="shown.link"
      :ends-at="shown.endsAt"
      @close="shown = null"
    />
  </SetUpRoom>
</template>

<style scoped>
section { max-width: 62rem; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.row { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 2fr) minmax(0, 1.2fr) 18rem; gap: var(--space-2) var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; align-items: baseline; }
.ways { display: flex; gap: var(--space-6); flex-wrap: wrap; }
.lost { flex-basis: 100%; }
.below { padding-top: var(--space-4); }
.add { display: flex; gap: var(--space-5); align-items: end; flex-wrap: wrap; }
.rename { display: flex; gap: var(--space-5); align-items: center; }
@media (max-width: 700px) { .row { grid-template-columns: minmax(0, 1fr); } }
</style>
