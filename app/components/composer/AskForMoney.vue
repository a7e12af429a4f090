<script setup lang="ts">
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'

/** A text cannot be paid: one press asks the admins, and it says so when one of them has seen to it. */
const { currency, why } = defineProps<{ currency: string, why: string }>()
const emit = defineEmits<{ again: [] }>()

const me = useMe()
const state = ref<'not-asked' | 'asked' | 'seen-to'>('not-asked')
const { problem, busy, trying } = useTrying()

const ask = () => trying(async () => {
  await api('/api/money/ask', { method: 'POST', body: { currency, why } })
  state.value = 'asked'
})
useLive((notice) => {
  if (notice.kind === 'money' && state.value === 'asked') state.value = 'seen-to'
}, () => undefined)
</script>

<template>
  <p
    class="notice"
    role="status"
  >
    <NuxtLink
      v-if="me.may('money.edit')"
      to="/set-up/money"
    >Put it right in Money</NuxtLink>
    <template v-else-if="state === 'not-asked'">
      <button
        type="button"
        class="plain-button"
        :disabled="busy"
        @click="ask"
      >
        Ask the admins
      </button>
      <span v-if="problem"> {{ problem }}</span>
    </template>
    <template v-else-if="state === 'asked'">
      The admins have been asked. What you wrote stays here, and you hear of it when one has seen to it.
    </template>
    <template v-else>
      An admin has seen to it.
      <button
        type="button"
        class="plain-button"
        @click="emit('again')"
      >
        Send it now
      </button>
    </template>
  </p>
</template>
