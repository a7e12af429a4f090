<script setup lang="ts">
import type { SecondStep, SecondStepOffer } from '~~/shared/sign-ins'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useSaving } from '~/composables/saving'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'
import { dayName } from '~/words/time'

/** A code of an app after the password: setting it up, its recovery codes, and ending it. */
const { found, problem: notLoaded, load } = useLoaded<SecondStep>('/api/me/second-step')
const offer = shallowRef<SecondStepOffer | null>(null)
const picture = ref('')
const code = ref('')
/** Shown this once. */
const codes = shallowRef<string[] | null>(null)
/** What the password is asked for. */
const asked = ref<'end' | 'codes' | null>(null)
const password = ref('')
const { problem, busy, trying } = useTrying()
const { errors, saving, save } = useSaving('code')
const { errors: passwordErrors, saving: asking, save: ask } = useSaving('password')

const now = useNow()
const zone = computed(() => useMe().me!.zone)

const begin = () => trying(async () => {
  const made = await api<SecondStepOffer>('/api/me/second-step', { method: 'POST', body: {} })
  // only whoever sets it up needs what draws it
  const { renderSVG } = await import('uqr')
  picture.value = renderSVG(made.uri, { border: 2 })
  code.value = ''
  offer.value = made
})

const confirm = () => save(async () => {
  codes.value = await api<string[]>('/api/me/second-step/confirm', { method: 'POST', body: { code: code.value } })
  offer.value = null
  await load()
})

function askFor(what: 'end' | 'codes'): void {
  asked.value = what
  password.value = ''
}

const go = () => ask(async () => {
  const body = { password: password.value }
  if (asked.value === 'end') {
    await api('/api/me/second-step/end', { method: 'POST', body })
    codes.value = null
  }
  else {
    codes.value = await api<string[]>('/api/me/second-step/codes', { method: 'POST', body })
  }
  asked.value = null
  await load()
})

/** "JBSW Y3DP …", as it can be typed off. */
const inFours = (secret: string) => secret.match(/.{1,4}/g)!.join(' ')
const asFile = computed(() => codes.value && `data:text/plain;charset=utf-8,${encodeURIComponent(`Recovery codes for Plauder\n\n${codes.value.join('\n')}\n`)}`)
</script>

<template>
  <section class="step">
    <h2>A second step</h2>
    <LoadProblem
      v-if="notLoaded"
      :problem="notLoaded"
      @again="load"
    />
    <p
      v-else-if="!found"
      class="quiet"
      role="status"
    >
      Looking…
    </p>
    <template v-else>
      <p v-if="found.since !== null">
        <strong>After your password a code of your app is asked for</strong>, since {{ dayName(found.since, zone, now) }}.
        <span :class="found.codesLeft < 3 ? 'few' : 'quiet'">{{ many(found.codesLeft, 'recovery code', 'recovery codes') }} left.</span>
      </p>
      <p v-else-if="!offer">
        Your password alone lets you in. With a second step, whoever learns it does not get in: an app on your telephone shows a code that changes every half minute.
      </p>
      <p
        v-if="problem"
        class="field-error"
        role="alert"
      >
        {{ problem }}
      </p>
      <p
        v-if="found.since === null && !found.possible"
        class="quiet"
      >
        It cannot be set up here: whoever runs Plauder has not set PLAUDER_SEAL_KEY.
      </p>
      <p v-else-if="found.since === null && !offer">
        <Button
          label="Set it up"
          :loading="busy"
          @click="begin"
        />
      </p>
      <form
        v-if="offer"
        class="offer"
        novalidate
        @submit.prevent="confirm"
      >
        <!-- eslint-disable vue/no-v-html -- drawn here, of nothing that anybody has typed -->
        <div
          class="picture"
          role="img"
          aria-label="What the app reads with its camera"
          v-html="picture"
        />
        <!-- eslint-enable vue/no-v-html -->
        <div class="beside">
          <p>Let an authenticator app read this, or type into it: <code class="secret">{{ inFours(offer.secret) }}</code></p>
          <LabelledField
            id="second-code"
            v-slot="{ input }"
            label="The code that the app shows then"
            :error="errors.code"
          >
            <InputText
              v-bind="input"
              v-model="code"
              inputmode="numeric"
              autocomplete="one-time-code"
              placeholder="123 456"
            />
          </LabelledField>
          <p class="acts">
            <Button
              type="submit"
              label="It works, ask for it from now on"
              :loading="saving"
            />
            <button
              type="button"
              class="plain-button calm"
              @click="offer = null"
            >
              Not now
            </button>
          </p>
        </div>
      </form>
      <div
        v-if="codes"
        class="notice codes"
      >
        <p><strong>Keep these where your telephone is not.</strong> Each lets you in once without the app. They are not shown again.</p>
        <ul class="figures">
          <li
            v-for="one in codes"
            :key="one"
          >
            {{ one }}
          </li>
        </ul>
        <p class="acts">
          <a
            :href="asFile!"
            download="plauder-recovery-codes.txt"
          >Save them as a file</a>
          <button
            type="button"
            class="plain-button"
            @click="codes = null"
          >
            I have kept them
          </button>
        </p>
      </div>
      <p
        v-if="found.since !== null && !asked && !codes"
        class="acts"
      >
        <button
          type="button"
          class="plain-button"
          @click="askFor('codes')"
        >
          Make new recovery codes
        </button>
        <button
          type="button"
          class="plain-button wrong"
          @click="askFor('end')"
        >
          End the second step
        </button>
      </p>
      <form
        v-if="asked"
        class="ask"
        novalidate
        @submit.prevent="go"
        @keydown.esc.stop="asked = null"
      >
        <LabelledField
          id="own-password"
          v-slot="{ input }"
          :label="asked === 'end' ? 'Your password, to end it' : 'Your password, for new codes in place of the old ones'"
          :error="passwordErrors.password"
        >
          <InputText
            v-bind="input"
            v-model="password"
            type="password"
            autocomplete="current-password"
            autofocus
          />
        </LabelledField>
        <p class="acts">
          <Button
            type="submit"
            :label="asked === 'end' ? 'End it' : 'Make them'"
            :loading="asking"
          />
          <button
            type="button"
            class="plain-button calm"
            @click="asked = null"
          >
            Leave it as it is
          </button>
        </p>
      </form>
    </template>
  </section>
</template>

<style scoped>
.step { display: grid; gap: var(--space-4); width: min(100%, 52rem); margin-top: var(--space-6); }
.offer { display: grid; grid-template-columns: 12rem minmax(0, 1fr); gap: var(--space-7); align-items: start; }
.picture { background: #fff; border: 1px solid var(--rule); border-radius: var(--round); line-height: 0; }
.picture :deep(svg) { width: 100%; height: auto; }
.beside { display: grid; gap: var(--space-5); max-width: 28rem; }
.secret { overflow-wrap: anywhere; }
.codes { display: grid; gap: var(--space-4); }
.codes ul { display: grid; grid-template-columns: repeat(auto-fill, minmax(8rem, 1fr)); gap: var(--space-2) var(--space-6); }
.ask { display: grid; gap: var(--space-4); max-width: 24rem; }
.acts { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-6); align-items: baseline; }
.few { color: var(--wrong); }
@media (max-width: 600px) { .offer { grid-template-columns: minmax(0, 1fr); } .picture { max-width: 12rem; } }
</style>
