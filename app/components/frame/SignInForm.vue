<script setup lang="ts">
import { useForm } from 'vee-validate'
import { toTypedSchema } from '@vee-validate/yup'
import { signInForm } from '~~/shared/schemas/sign-in'
import { problemIn } from '~/composables/trying'
import { useMe } from '~/stores/me'

const emit = defineEmits<{ done: [] }>()
const me = useMe()
const problem = ref('')
const { defineField, errors, handleSubmit, isSubmitting, setErrors } = useForm({ validationSchema: toTypedSchema(signInForm) })
const [mail, mailProps] = defineField('mail', { validateOnModelUpdate: false })
const [password, passwordProps] = defineField('password', { validateOnModelUpdate: false })
const [code, codeProps] = defineField('code', { validateOnModelUpdate: false })
/** A code is asked for once the password was right. */
const asksForCode = ref(false)

const submit = handleSubmit(async (values) => {
  problem.value = ''
  try {
    await me.signIn(values.mail, values.password, asksForCode.value ? values.code ?? '' : '')
    emit('done')
  }
  catch (error) {
    const { fields, message } = problemIn(error)
    if (fields.code && !asksForCode.value) return void await askForCode()
    setErrors(fields)
    problem.value = Object.keys(fields).length > 0 ? '' : message
  }
})

async function askForCode(): Promise<void> {
  asksForCode.value = true
  await nextTick()
  document.getElementById('code')?.focus()
}
// another one may be asked for none
watch([mail, password], () => asksForCode.value = false)
</script>

<template>
  <form
    class="form"
    novalidate
    @submit="submit"
  >
    <LabelledField
      id="mail"
      v-slot="{ input }"
      label="Mail address"
      :error="errors.mail"
    >
      <InputText
        v-bind="{ ...mailProps, ...input }"
        v-model="mail"
        type="email"
        autocomplete="username"
        autofocus
      />
    </LabelledField>
    <LabelledField
      id="password"
      v-slot="{ input }"
      label="Password"
      :error="errors.password"
    >
      <InputText
        v-bind="{ ...passwordProps, ...input }"
        v-model="password"
        type="password"
        autocomplete="current-password"
      />
    </LabelledField>
    <LabelledField
      v-if="asksForCode"
      id="code"
      v-slot="{ input }"
      label="The code that your app shows now, or a recovery code"
      :error="errors.code"
    >
      <InputText
        v-bind="{ ...codeProps, ...input }"
        v-model="code"
        autocomplete="one-time-code"
        autocapitalize="characters"
        spellcheck="false"
      />
    </LabelledField>
    <p
      v-if="problem"
      class="notice failed"
      role="alert"
    >
      {{ problem }}
    </p>
    <Button
      type="submit"
      label="Sign in"
      :loading="isSubmitting"
    />
  </form>
</template>

<style scoped>
.form { display: grid; gap: var(--space-6); }
</style>
