import type { Role } from '~~/shared/permissions'

export const ROLE_WORDS: Record<Role, { name: string, about: string }> = {
  rep: { name: 'Rep', about: 'sees their own records and their teams’, and answers their teams’ lines' },
  lead: { name: 'Lead', about: 'sees everything of everybody in their teams, and sets up how calls end' },
  admin: { name: 'Admin', about: 'sees and sets up everything' },
  helper: { name: 'Helper from outside', about: 'sets up lines, carriers and fields for a limited time, and sees nobody’s records or words' },
}
