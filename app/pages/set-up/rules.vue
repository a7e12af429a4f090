<script setup lang="ts">
import type { HouseRulesForm } from '~~/shared/schemas/house-rules'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useSaving } from '~/composables/saving'
import { adminsOnly } from '~/composables/set-up-list'
import { useMe } from '~/stores/me'

definePageMeta({ middleware: adminsOnly })

const me = useMe()
const form = ref<HouseRulesForm | null>(null)
const saved = ref(false)
const { errors, saving, save } = useSaving('takeBackSeconds')

const { problem, load } = useLoaded<HouseRulesForm>('/api/set-up/rules', rules => form.value = rules)

async function keep(): Promise<void> {
  saved.value = await save(async () => form.value = await api<HouseRulesForm>('/api/set-up/rules', { method: 'PUT', body: form.value! }))
  if (saved.value) await me.load()
}
</script>

<template>
  <SetUpRoom
    title="House rules"
    hint="What holds for everybody."
    what="the rules"
    :loaded="form !== null"
    :problem="problem"
    @again="load"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="keep"
    >
      <LabelledField
        id="take-back-seconds"
        v-slot="{ input }"
        label="For how many seconds a text can be taken back before it leaves"
        :error="errors.takeBackSeconds"
      >
        <InputText
          v-bind="input"
          :model-value="String(form!.takeBackSeconds)"
          type="number"
          min="0"
          max="60"
          class="short"
          @update:model-value="form!.takeBackSeconds = Number($event)"
        />
      </LabelledField>
      <p class="quiet small">
        Texts that are written by hand, and those that a disposition sends. With 0 they leave at once.
      </p>
      <p class="acts">
        <Button
          type="submit"
          label="Save the rules"
          :loading="saving"
        />
        <span
          v-if="saved"
          class="quiet"
          role="status"
        >Kept.</span>
      </p>
    </form>
  </SetUpRoom>
</template>

<style scoped>
.form { display: grid; gap: var(--space-4); justify-items: start; max-width: 36rem; }
.short { width: 7rem; }
.acts { display: flex; gap: var(--space-6); align-items: center; }
</style>
