import { array, object, string, type InferType } from 'yup'
import { isDay } from '../../core/conditions/conditions'
import { ROLES } from '../permissions'
import { freshId, idOf, line, mailAddress, newPassword } from './common'

/** The last day on which somebody from outside helps; of no other role. */
const helpsUntil = () => string().nullable().default(null)
  .test('day', 'Write a day such as 2026-12-08.', day => !day || isDay(day))
  .test('helper', 'Say until when they help.', (day, { parent }) => !!day || (parent as { role?: string }).role !== 'helper')

export const colleagueForm = object({
  name: line(80).required('Say what they are called.'),
  mail: mailAddress().required('Give the mail address with which they sign in.'),
  role: string().oneOf(ROLES, 'Choose what they may do.').required('Choose what they may do.'),
  title: line(80).default(''),
  helpsUntil: helpsUntil(),
  teamIds: array().of(idOf('team').required()).max(50, 'At most 50 teams.').default([])
    .test('once', 'A team is chosen twice.', ids => new Set(ids).size === ids.length),
})
export type ColleagueForm = InferType<typeof colleagueForm>

export const inviteForm = colleagueForm.shape({ id: freshId().required() })
export type InviteForm = InferType<typeof inviteForm>

export const teamForm = object({ name: line(60).required('Say what the team is called.') })
export const makeTeamForm = teamForm.shape({ id: freshId().required() })

const KEY = string().max(200).required('The key is missing. Open the whole address that you were given.')

export const readInvitationForm = object({ key: KEY })

export const joinForm = object({
  key: KEY,
  name: line(80).required('Say who you are.'),
  zone: string().max(60).required('Choose a time zone.'),
  password: newPassword(),
})
export type JoinForm = InferType<typeof joinForm>

/** To whom all goes that is theirs who leaves. */
export const leaveForm = object({ toId: idOf('colleague').required('Choose who gets what is theirs.') })
