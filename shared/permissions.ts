/** Who may do what: the one table. `can()` reads it for actions, `visible()` turns it into SQL for rows. */
/** A helper is from outside, for a limited time: sets lines, carriers and fields up, and sees no person and no words. */
export const ROLES = ['rep', 'lead', 'admin', 'helper'] as const
export type Role = typeof ROLES[number]

/**
 * How far a right reaches.
 * - own: what belongs to me
 * - team: that, and what belongs to one of my teams
 * - people: that, and what belongs to anyone in one of my teams
 */
export type Scope = 'none' | 'own' | 'team' | 'people' | 'all'

export const PERMISSIONS = {
  'record.see': { rep: 'team', lead: 'people', admin: 'all', helper: 'none' },
  'record.edit': { rep: 'team', lead: 'people', admin: 'all', helper: 'none' },
  /** Taking records out, as a file. */
  'record.export': { rep: 'own', lead: 'people', admin: 'all', helper: 'none' },
  /** Bringing records in, as a file, for whom they will belong to. */
  'record.import': { rep: 'own', lead: 'people', admin: 'all', helper: 'none' },
  /** A line's conversations, and texting from it. */
  'line.answer': { rep: 'team', lead: 'people', admin: 'all', helper: 'none' },
  /** Fields of the firm's own. */
  'field.edit': { rep: 'none', lead: 'none', admin: 'all', helper: 'all' },
  'pipeline.edit': { rep: 'none', lead: 'none', admin: 'all', helper: 'none' },
  /** How calls end, and what that sets off. */
  'disposition.edit': { rep: 'none', lead: 'all', admin: 'all', helper: 'none' },
  /** Working a call round: one's own, or a team's. */
  'round.work': { rep: 'team', lead: 'people', admin: 'all', helper: 'none' },
  /** Pausing and stopping it, and how it goes. */
  'round.edit': { rep: 'own', lead: 'people', admin: 'all', helper: 'none' },
  /** Texting many at once, and seeing what became of it. */
  'bulk.work': { rep: 'own', lead: 'people', admin: 'all', helper: 'none' },
  /** A group is everybody's; whom one sees in it are those whom one may see anyway. */
  'group.see': { rep: 'all', lead: 'all', admin: 'all', helper: 'none' },
  'group.edit': { rep: 'own', lead: 'all', admin: 'all', helper: 'none' },
  /** Listening to what was recorded of a call. */
  'recording.hear': { rep: 'own', lead: 'people', admin: 'all', helper: 'none' },
  /** Leaving a spoken message on mailboxes: one's own, or one of a team. */
  'spoken.leave': { rep: 'team', lead: 'people', admin: 'all', helper: 'none' },
  'spoken.edit': { rep: 'own', lead: 'people', admin: 'all', helper: 'none' },
  /** The firm's rules of the house. */
  'rules.edit': { rep: 'none', lead: 'none', admin: 'all', helper: 'none' },
  /** Switching texting on and off, and what everybody has to read before. */
  'texting.switch': { rep: 'none', lead: 'none', admin: 'all', helper: 'none' },
  /** How a line is set up. */
  'line.edit': { rep: 'none', lead: 'none', admin: 'all', helper: 'all' },
  /** Who works here, in which teams, and as what. */
  'people.edit': { rep: 'none', lead: 'none', admin: 'all', helper: 'none' },
  /** Which carriers there are, and how one gets to them. */
  'carrier.edit': { rep: 'none', lead: 'none', admin: 'all', helper: 'all' },
  /** What is there to pay with, what it goes for, and who may spend how much. */
  'money.edit': { rep: 'none', lead: 'none', admin: 'all', helper: 'none' },
  /** Who did what. */
  'audit.see': { rep: 'none', lead: 'none', admin: 'all', helper: 'none' },
  /** What broke and waits to be started again. */
  'stuck.see': { rep: 'none', lead: 'none', admin: 'all', helper: 'none' },
  /** A saved list: one's own, or one shared with a team. */
  'view.see': { rep: 'team', lead: 'team', admin: 'team', helper: 'none' },
  'view.edit': { rep: 'own', lead: 'team', admin: 'all', helper: 'none' },
  /** One's own, one of a team, or one for all, which has neither. */
  'template.see': { rep: 'team', lead: 'team', admin: 'team', helper: 'none' },
  'template.edit': { rep: 'own', lead: 'all', admin: 'all', helper: 'none' },
  /** Making a template one for everybody. */
  'template.for-all': { rep: 'none', lead: 'all', admin: 'all', helper: 'none' },
} as const satisfies Record<string, Record<Role, Scope>>

export type Permission = keyof typeof PERMISSIONS

/** Who asks: what every rule needs to know of a colleague. */
export interface Asker {
  id: string
  role: Role
  teamIds: string[]
  /** Everybody in one of my teams, me included. */
  peopleIds: string[]
  /** What an admin has changed for those with this role, or for this one. */
  rights?: Partial<Record<Permission, Scope>>
}

/** To whom a thing belongs. */
export interface Belongs { ownerId?: string | null, teamId?: string | null }

/** How far each scope reaches; what reaches further holds what reaches less far. */
export const SCOPES = ['none', 'own', 'team', 'people', 'all'] as const satisfies Scope[]

/** What an admin may change for reps and leads, and to what. Admins may do everything, or nobody could put it right. */
export const CHANGEABLE = {
  'record.see': ['own', 'team', 'people', 'all'],
  'record.edit': ['none', 'own', 'team', 'people', 'all'],
  'line.answer': ['none', 'own', 'team', 'people', 'all'],
  'bulk.work': ['none', 'own', 'people', 'all'],
  'recording.hear': ['none', 'own', 'people', 'all'],
  'record.export': ['none', 'own', 'team', 'people', 'all'],
  'record.import': ['none', 'own', 'people', 'all'],
  'template.edit': ['none', 'own', 'all'],
  'template.for-all': ['none', 'all'],
  'group.edit': ['own', 'all'],
} as const satisfies Partial<Record<Permission, readonly Scope[]>>
export type Changeable = keyof typeof CHANGEABLE

/** Whoever may do the one must be able to do the other as far, or could do it blindly. */
export const NEEDS: Partial<Record<Changeable, Changeable>> = { 'record.edit': 'record.see', 'record.export': 'record.see' }

export const reachesAsFar = (scope: Scope, as: Scope): boolean => SCOPES.indexOf(scope) >= SCOPES.indexOf(as)

export const scopeOf = (asker: Pick<Asker, 'role' | 'rights'>, permission: Permission): Scope =>
  asker.rights?.[permission] ?? PERMISSIONS[permission][asker.role]

/** What any of Set-up asks for. */
export const SETTING_UP = [
  'disposition.edit', 'field.edit', 'pipeline.edit', 'line.edit', 'carrier.edit', 'texting.switch', 'money.edit', 'rules.edit', 'people.edit',
] as const satisfies Permission[]

/** Whether somebody leads others: sees what they do, and gives their word for it. */
export const oversees = ({ role }: Pick<Asker, 'role'>): boolean => role === 'lead' || role === 'admin'

/** Whether somebody may do this with a thing that belongs so. */
export function can(asker: Asker, permission: Permission, thing: Belongs): boolean {
  const own = thing.ownerId === asker.id
  const team = own || (!!thing.teamId && asker.teamIds.includes(thing.teamId))
  switch (scopeOf(asker, permission)) {
    case 'all': return true
    case 'people': return team || (!!thing.ownerId && asker.peopleIds.includes(thing.ownerId))
    case 'team': return team
    case 'own': return own
    case 'none': return false
  }
}

/** How far somebody's rights reach, of everything. */
export function rightsOf(asker: Pick<Asker, 'role' | 'rights'>): Record<Permission, Scope> {
  const all = Object.keys(PERMISSIONS) as Permission[]
  return Object.fromEntries(all.map(permission => [permission, scopeOf(asker, permission)])) as Record<Permission, Scope>
}
