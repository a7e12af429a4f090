<script setup lang="ts">
import type { OwnSignIn } from '~~/shared/sign-ins'
import { api } from '~/composables/api'
import { useNow } from '~/composables/now'
import { useSetUpList } from '~/composables/set-up-list'
import { ago } from '~/words/time'

const now = useNow()
const { list: signIns, problem, trying, load } = useSetUpList<OwnSignIn>(() => ({ path: '/api/me/sign-ins' }))
const others = computed(() => signIns.value?.filter(({ here }) => !here) ?? [])

const end = (id: string) => trying(() => api<OwnSignIn[]>(`/api/me/sign-ins/${id}`, { method: 'DELETE' }))
const endOthers = () => trying(() => api<OwnSignIn[]>('/api/me/sign-ins/end-others', { method: 'POST', body: {} }))
</script>

<template>
  <div class="page">
    <header class="head">
      <h1>Signing in</h1>
      <p class="quiet">
        Where you are signed in, and what is asked for when you do.
      </p>
    </header>
    <h2>Where I am signed in</h2>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-if="!signIns && !problem"
      class="quiet"
      role="status"
    >
      Loading your sign-ins…
    </p>
    <template v-else-if="signIns">
      <ul class="sign-ins">
        <li
          v-for="one in signIns"
          :key="one.id"
        >
          <strong>{{ one.device || 'A browser' }}</strong>
          <span class="quiet figures">from {{ one.address }}</span>
          <span class="quiet">since {{ ago(one.madeAt, now) }}</span>
          <span
            v-if="one.here"
            class="here"
          >this browser</span>
          <button
            v-else
            type="button"
            class="plain-button"
            :aria-label="`Sign out ${one.device} from ${one.address}`"
            @click="end(one.id)"
          >
            Sign out there
          </button>
        </li>
      </ul>
      <p
        v-if="others.length === 0"
        class="quiet"
      >
        You are signed in nowhere else.
      </p>
      <Button
        v-else
        label="Sign out everywhere else"
        class="all"
        @click="endOthers"
      />
    </template>
    <SecondStepSection />
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-5); align-content: start; justify-items: start; }
.head { display: flex; align-items: baseline; gap: var(--space-6); flex-wrap: wrap; }
.sign-ins { display: grid; width: min(100%, 52rem); border-top: 1px solid var(--rule); }
.sign-ins li { display: grid; grid-template-columns: 14rem 12rem 1fr auto; gap: var(--space-6); align-items: baseline; min-height: 36px; padding: var(--space-3) 0; border-bottom: 1px solid var(--rule); }
.here { color: var(--good); font-weight: 700; }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); } .sign-ins li { grid-template-columns: 1fr auto; } }
</style>
