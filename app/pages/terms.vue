<script setup lang="ts">
import type { TermsToRead } from '~~/shared/terms'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { problemIn } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { shortDay } from '~/words/time'

/** What everybody reads before they text, in the firm's own words. */
const me = useMe()
const { found, problem, load } = useLoaded<TermsToRead>('/api/terms')
const busy = ref(false)
const refused = ref('')
const router = useRouter()

async function accept(): Promise<void> {
  busy.value = true
  refused.value = ''
  try {
    found.value = await api<TermsToRead>('/api/terms/accept', { method: 'POST', body: { version: found.value!.terms!.version } })
    await me.countAgain()
    // back to what they were about to write, which is kept there
    if (router.options.history.state.back) router.back()
  }
  catch (error) {
    refused.value = problemIn(error).message
    await load()
  }
  finally {
    busy.value = false
  }
}
useLive(notice => notice.kind === 'terms' && void load(), () => void load())
</script>

<template>
  <div class="page">
    <header>
      <h1>Before you text</h1>
      <p
        v-if="found?.terms"
        class="quiet"
      >
        How texting is done at {{ me.me!.firm }}, as of {{ shortDay(found.terms.madeAt, me.me!.zone) }}.
      </p>
    </header>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Load them again"
      @again="load"
    />
    <p
      v-else-if="!found"
      class="quiet"
      role="status"
    >
      Loading the terms…
    </p>
    <p v-else-if="!found.terms">
      There are no terms of use. An admin writes them in Set-up.
    </p>
    <template v-else>
      <p
        v-if="refused"
        class="notice failed"
        role="alert"
      >
        {{ refused }}
      </p>
      <div
        class="words"
        dir="auto"
      >
        {{ found.terms.words }}
      </div>
      <Button
        v-if="found.unread"
        label="I have read it, and keep to it"
        :loading="busy"
        @click="accept"
      />
      <p
        v-else
        class="quiet"
        role="status"
      >
        You have read it, and keep to it.
      </p>
    </template>
  </div>
</template>

<style scoped>
.page { padding: var(--space-6) var(--space-8) var(--space-9); display: grid; gap: var(--space-6); justify-items: start; align-content: start; }
.words { max-width: 40rem; white-space: pre-line; overflow-wrap: anywhere; line-height: 1.6; }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); } }
</style>
