import { object, string, type InferType } from 'yup'
import { CHANGEABLE, SCOPES, type Changeable } from '../permissions'

export const rightForm = object({
  role: string().oneOf(['rep', 'lead'], 'Admins may do everything. Choose reps or leads.').required(),
  permission: string().oneOf(Object.keys(CHANGEABLE) as Changeable[], 'There is no such right to change.').required(),
  scope: string().oneOf(SCOPES, 'Choose how far it reaches.').required(),
})
export type RightForm = InferType<typeof rightForm>
