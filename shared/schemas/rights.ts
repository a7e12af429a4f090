import { object, string, type InferType } from 'yup'
import { CHANGEABLE, SCOPES, type Changeable } from '../permissions'
import { idOf } from './common'

export const rightForm = object({
  role: string().oneOf(['rep', 'lead'], 'Admins may do everything. Choose reps or leads.').required(),
  permission: string().oneOf(Object.keys(CHANGEABLE) as Changeable[], 'There is no such right to change.').required(),
  scope: string().oneOf(SCOPES, 'Choose how far it reaches.').required(),
})
/** @field scope null: as all others in their role */
export const personRightForm = object({
  colleagueId: idOf('colleague').required('Choose a colleague.'),
  permission: string().oneOf(Object.keys(CHANGEABLE) as Changeable[], 'There is no such right to change.').required('Choose what they may do.'),
  scope: string().nullable().default(null).oneOf([...SCOPES, null], 'Choose how far it reaches.'),
})
export type PersonRightForm = InferType<typeof personRightForm>

export type RightForm = InferType<typeof rightForm>
