<script setup lang="ts">
import { useForm } from 'vee-validate'
import { toTypedSchema } from '@vee-validate/yup'
import { signInForm } from '~~/shared/schemas/sign-in'
import { ApiProblem } from '~/composables/api'
import { useMe } from '~/stores/me'

const emit = defineEmits<{ done: [] }>()
const me = useMe()
const problem = ref('')
const { defineField, errors, handleSubmit, isSubmitting, setErrors } = useForm({ validationSchema: toTypedSchema(signInForm) })
const [email, emailProps] = defineField('email', { validateOnModelUpdate: false })
const [password, passwordProps] = defineField('password', { validateOnModelUpdate: false })

const submit = handleSubmit(async (values) => {
  problem.value = ''
  try {
    await me.signIn(values.email, values.password)
    emit('done')
  }
  catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    setErrors(error.fields)
    problem.value = Object.keys(error.fields).length > 0 ? '' : error.message
  }
})
</script>

<template>
  <form
    class="form"
    novalidate
    @submit="submit"
  >
    <div class="field">
      <label for="email">Mail address</label>
      <InputText
        id="email"
        v-model="email"
        v-bind="emailProps"
        type="email"
        autocomplete="username"
        :invalid="!!errors.email"
        :aria-describedby="errors.email ? 'email-error' : undefined"
        autofocus
      />
      <p
        v-if="errors.email"
        id="email-error"
        class="field-error"
      >
        {{ errors.email }}
      </p>
    </div>
    <div class="field">
      <label for="password">Password</label>
      <InputText
        id="password"
        v-model="password"
        v-bind="passwordProps"
        type="password"
        autocomplete="current-password"
        :invalid="!!errors.password"
        :aria-describedby="errors.password ? 'password-error' : undefined"
      />
      <p
        v-if="errors.password"
        id="password-error"
        class="field-error"
      >
        {{ errors.password }}
      </p>
    </div>
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
.form { display: grid; gap: 1rem; }
</style>
