import { array, object, string, type InferType } from 'yup'
import { FIELD_KINDS } from '../../core/template/fields'
import { MODULES } from '../modules'
import { freshId, idOf, line } from './common'

export const fieldForm = object({
  id: freshId().required(),
  module: string().oneOf(MODULES).required(),
  label: line(60).required('Give the field a name.'),
  kind: string().oneOf(FIELD_KINDS).required(),
  example: line(120).default(''),
  options: array(line(60).required('Write the choice, or take it away.'))
    .max(60, 'A choice has 60 options at most.')
    .default([])
    .when('kind', {
      is: 'choice',
      then: options =>
        options
          .min(2, 'Give at least two to choose from.')
          .test('different', 'Each option once.', value => new Set(value?.map(one => one?.toLowerCase())).size === value?.length),
    }),
})
export type FieldForm = InferType<typeof fieldForm>

export const fieldOrder = object({ module: string().oneOf(MODULES).required(), ids: array(idOf('field').required()).max(200).required() })
