<script setup lang="ts">
import type { Permission } from '~~/shared/permissions'
import type { SetUpFront, SetUpWait } from '~~/shared/set-up'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { leftIn } from '~~/core/money/purse'
import { many } from '~/words/count'
import { sum } from '~/words/money'
import { waitWords } from '~/words/papers'
import { shortDay } from '~/words/time'

/** What is set up, and what is still to do. */
const me = useMe()
const { found, problem, load } = useLoaded<SetUpFront>('/api/set-up')
const now = useNow()
/** How long it has waited, or when it will be over. */
function sayWait({ since, until, usual }: SetUpWait): string {
  if (since !== null && usual) return `waits ${waitWords({ handedAt: since, ...usual }, now.value).waits}`
  if (until !== null) return `${since === null ? 'there on' : 'can until'} ${shortDay(until, me.me!.zone)}`
  return ''
}
const there = computed(() => {
  const facts = found.value?.facts
  if (!facts) return []
  return ([
    { what: many(facts.lines, 'line in use', 'lines in use'), more: facts.closedLines > 0 ? `${facts.closedLines} not in use` : '', to: '/set-up/lines', needs: 'line.edit' },
    { what: many(facts.carriers, 'carrier', 'carriers'), more: facts.away.length > 0 ? `${facts.away.length} not reached` : '', to: '/set-up/carriers', needs: 'carrier.edit' },
    { what: 'Papers', more: facts.sentBack > 0 ? `${facts.sentBack} sent back` : 'what carriers ask', to: '/set-up/papers', needs: 'carrier.edit' },
    { what: 'Money', more: facts.money.map(one => one.prepaid ? `${sum({ micros: leftIn(one), currency: one.currency })} left` : `${one.currency} by bill`).join(', '), to: '/set-up/money', needs: 'money.edit' },
    { what: many(facts.dispositions, 'disposition', 'dispositions'), more: 'what can be said after a call', to: '/set-up/dispositions', needs: 'disposition.edit' },
    { what: many(facts.templates, 'template', 'templates'), more: '', to: '/templates', needs: 'template.see' },
    { what: many(facts.pipelines, 'pipeline', 'pipelines'), more: 'the stages of records', to: '/set-up/pipelines', needs: 'pipeline.edit' },
    { what: many(facts.fields, 'custom field', 'custom fields'), more: '', to: '/set-up/fields', needs: 'field.edit' },
    { what: 'Texting', more: facts.textingOn ? 'switched on' : 'switched off', to: '/set-up/texting', needs: 'texting.switch' },
    { what: 'Hours', more: 'when people are reached, by place', to: '/set-up/hours', needs: 'rules.edit' },
    { what: 'House rules', more: '', to: '/set-up/rules', needs: 'rules.edit' },
    { what: many(facts.colleagues, 'colleague', 'colleagues'), more: `in ${many(facts.teams, 'team', 'teams')}`, to: me.may('people.edit') ? '/set-up/people' : null, needs: 'disposition.edit' },
  ] satisfies { what: string, more: string, to: string | null, needs: Permission }[]).filter(({ needs }) => me.may(needs))
})
</script>

<template>
  <SetUpRoom
    title="Set-up"
    hint="What is there, and what is still to do."
    what="what is set up"
    :loaded="found !== null"
    :problem="problem"
    @again="load"
  >
    <div
      v-if="found"
      class="halves"
    >
      <section>
        <h2>Yours to do</h2>
        <p
          v-if="found.toDo.length === 0"
          class="quiet"
        >
          {{ me.me!.role === 'helper' ? 'Nothing that is yours to put right.' : 'Nothing. Everybody can text and call.' }}
        </p>
        <ul v-else>
          <li
            v-for="one in found.toDo"
            :key="one.what"
            class="row"
          >
            <span><strong class="waits">{{ one.what }}</strong> {{ one.then }}</span>
            <NuxtLink
              v-if="one.to"
              :to="one.to"
            >
              Put it right
            </NuxtLink>
          </li>
        </ul>
      </section>
      <section>
        <h2>Theirs to do</h2>
        <p
          v-if="found.theirs.length === 0"
          class="quiet"
        >
          Nobody keeps you waiting.
        </p>
        <ul v-else>
          <li
            v-for="one in found.theirs"
            :key="one.what"
            class="row"
          >
            <span><NuxtLink :to="one.to">{{ one.what }}</NuxtLink></span>
            <span class="quiet">{{ sayWait(one) }}</span>
          </li>
        </ul>
      </section>
    </div>
    <section>
      <h2>Set up</h2>
      <ul>
        <li
          v-for="one in there"
          :key="one.what"
          class="row"
        >
          <span><NuxtLink
            v-if="one.to"
            :to="one.to"
          >{{ one.what }}</NuxtLink><strong v-else>{{ one.what }}</strong></span>
          <span class="quiet">{{ one.more }}</span>
        </li>
      </ul>
    </section>
  </SetUpRoom>
</template>

<style scoped>
section { max-width: 46rem; }
.halves { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-8); max-width: 68rem; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.row { display: flex; flex-wrap: wrap; justify-content: space-between; gap: var(--space-2) var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.waits { color: var(--waiting); }
@media (max-width: 900px) { .halves { grid-template-columns: minmax(0, 1fr); } }
</style>
