<script setup lang="ts">
import { KNOCK_KINDS, type KnockKind } from '~~/core/knock/kinds'
import { oversees } from '~~/shared/permissions'
import { api } from '~/composables/api'
import { chime } from '~/composables/chime'
import { useTrying } from '~/composables/trying'
import { useLoaded } from '~/composables/loaded'
import { useMe } from '~/stores/me'
import { KNOCK_CHOICES } from '~/words/knock-choices'
import { span } from '~/words/time'

/** How I am told of what comes in. The browser is asked only once somebody wants it. */
const me = useMe()
const { problem, busy, trying } = useTrying()
const told = computed(() => me.me!.told)
const refused = ref(false)
/** Only leads answer for how long somebody waits with others. */
const kinds = computed(() => KNOCK_KINDS.filter(kind => kind !== 'waits-too-long' || oversees(me.me!)))
const { found: colleagues, problem: colleaguesProblem, load: loadColleagues } = useLoaded<{ id: string, name: string }[]>('/api/colleagues')
const others = computed(() => (colleagues.value ?? []).filter(({ id }) => id !== me.me!.id))

/** A switch shows what was pressed: where that could not be kept, it is drawn anew as it is. */
const refusals = ref(0)

async function keep(changed: Partial<typeof told.value>): Promise<boolean> {
  const went = await trying(async () => {
    await api('/api/me/told', { method: 'PUT', body: { ...told.value, ...changed } })
    await me.load()
  })
  if (!went) refusals.value++
  return went
}

async function keepNotifies(wanted: boolean): Promise<void> {
  refused.value = false
  if (wanted && await globalThis.Notification?.requestPermission() !== 'granted') return void (refused.value = true)
  await keep({ notifies: wanted })
}

async function keepChimes(wanted: boolean): Promise<void> {
  if (await keep({ chimes: wanted }) && wanted) chime()
}

const MAIL_MINUTES = [5, 15, 30, 60, 120, 240]
const mailMinutes = computed(() => [...new Set([...MAIL_MINUTES, ...told.value.mailMinutes ? [told.value.mailMinutes] : []])].sort((a, b) => a - b))
const keepKind = (kind: KnockKind, wanted: boolean) =>
  keep({ knocksOff: [...told.value.knocksOff.filter(one => one !== kind), ...wanted ? [] : [kind]] })
</script>

<template>
  <div class="page">
    <header>
      <h1>How I am told</h1>
      <p class="quiet">
        When a text or a missed call comes in. What waits for an answer is counted in the header and in the window’s title either way.
      </p>
    </header>
    <label class="choice"><ToggleSwitch
      :key="refusals"
      :model-value="told.chimes"
      :disabled="busy"
      @update:model-value="keepChimes"
    /> <span>A short sound <span class="quiet">not during a call, and only once when several come in together.</span></span></label>
    <label class="choice"><ToggleSwitch
      :key="refusals"
      :model-value="told.notifies"
      :disabled="busy"
      @update:model-value="keepNotifies"
    /> <span>The browser’s notifications <span class="quiet">while you look at something else. They say who waits for an answer, and lead to the conversation.</span></span></label>
    <p
      v-if="refused"
      class="notice failed"
      role="alert"
    >
      This browser does not allow notifications from Plauder. Allow them in the browser’s settings for this page, then switch them on here.
    </p>
    <p
      v-if="me.me!.mails"
      class="mail"
    >
      <label for="mail-minutes">By mail, when somebody has waited for me</label>
      <select
        id="mail-minutes"
        class="plain-field"
        :value="told.mailMinutes ?? ''"
        :disabled="busy"
        @change="keep({ mailMinutes: Number(($event.target as HTMLSelectElement).value) || null })"
      >
        <option value="">
          never
        </option>
        <option
          v-for="minutes in mailMinutes"
          :key="minutes"
          :value="minutes"
        >
          longer than {{ span(minutes * 60_000) }}
        </option>
      </select>
      <span class="quiet small">Once for each of them, with a link to the answer. A mail says who waits, never what they wrote.</span>
    </p>
    <section class="knocks">
      <h2>What knocks at me</h2>
      <p class="quiet">
        It comes up at the end of the shelf at once, with what to do about it. Whoever takes it first has it.
      </p>
      <label
        v-for="kind in kinds"
        :key="kind"
        class="choice"
      ><ToggleSwitch
        :key="refusals"
        :model-value="!told.knocksOff.includes(kind)"
        :disabled="busy"
        @update:model-value="keepKind(kind, $event)"
      /> <span>{{ KNOCK_CHOICES[kind].choice }} <span class="quiet">{{ KNOCK_CHOICES[kind].hint }}</span></span></label>
      <p class="stand-in-line">
        <label for="stand-in">When I have not come in {{ me.me!.knockMinutes }} min, it knocks at</label>
        <select
          id="stand-in"
          class="plain-field"
          :value="told.standInId ?? ''"
          :disabled="busy || !colleagues"
          @change="keep({ standInId: ($event.target as HTMLSelectElement).value || null })"
        >
          <option value="">
            the lead
          </option>
          <option
            v-for="{ id, name } in others"
            :key="id"
            :value="id"
          >
            {{ name }}, and then the lead
          </option>
        </select>
      </p>
      <LoadProblem
        v-if="colleaguesProblem"
        :problem="colleaguesProblem"
        again="Load the colleagues again"
        @again="loadColleagues"
      />
    </section>
    <p
      v-if="problem"
      class="notice failed"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-6); align-content: start; max-width: 44rem; }
.knocks { display: grid; gap: var(--space-4); justify-items: start; }
h2 { font-size: var(--size-text); padding-top: var(--space-4); }
.choice > :first-child { flex: none; }
.mail, .stand-in-line { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-4); align-items: center; }
.mail .small { flex-basis: 100%; }
.choice { display: flex; gap: var(--space-5); align-items: start; }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); } }
</style>
