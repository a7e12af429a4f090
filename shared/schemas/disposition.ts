import { array, object, string, type InferType } from 'yup'
import { DISPOSITION_COLOURS } from '../calling'
import { PERSON_MODULES } from '../modules'
import { freshId, idOf, line } from './common'
import { effectList } from './effect'

export const ofPersonModule = object({ module: string().oneOf(PERSON_MODULES).required() })

export const dispositionForm = object({
  id: freshId().required(),
  module: string().oneOf(PERSON_MODULES).required(),
  name: line(40).required('Give it a name.'),
  family: string().oneOf(['reached', 'not-reached'] as const).required(),
  colour: string().oneOf(DISPOSITION_COLOURS).default('accent'),
  letter: string().lowercase().matches(/^[a-z]$/, 'One letter, from A to Z.').required('Give it a letter.'),
  effects: effectList(),
  onlyLineId: idOf('line').nullable().default(null),
  onlyRoundId: idOf('round').nullable().default(null),
}).test('one-purpose', function ({ onlyLineId, onlyRoundId }) {
  return !(onlyLineId && onlyRoundId)
    || this.createError({ path: 'onlyRoundId', message: 'A disposition has one purpose: a line or a round.' })
})
export type DispositionForm = InferType<typeof dispositionForm>

export const dispositionOrderForm = object({
  module: string().oneOf(PERSON_MODULES).required(),
  ids: array().of(idOf('disposition').required()).max(200).required(),
})
