import type { Role } from '../shared/permissions'

export const DEMO_PASSWORD = 'cargo-bikes-2026'

/** The five people of Pannier & Post who use Plauder. */
export const COLLEAGUES: { key: string, name: string, mail: string, role: Role, title: string, zone: string, teams: ('sales' | 'recruiting')[], directLine: string }[] = [
  { key: 'ada', name: 'Ada Lund', mail: 'ada@pannier.example', role: 'rep', title: 'Sales', zone: 'America/Los_Angeles', teams: ['sales'], directLine: '503 555 0190' },
  { key: 'mika', name: 'Mika Sand', mail: 'mika@pannier.example', role: 'rep', title: 'Sales and client care', zone: 'America/Chicago', teams: ['sales'], directLine: '612 555 0105' },
  { key: 'noor', name: 'Noor Farouk', mail: 'noor@pannier.example', role: 'rep', title: 'Recruiting', zone: 'America/Halifax', teams: ['recruiting'], directLine: '902 555 0121' },
  { key: 'odile', name: 'Odile Marchetti', mail: 'odile@pannier.example', role: 'lead', title: 'Team lead', zone: 'America/Chicago', teams: ['sales', 'recruiting'], directLine: '612 555 0106' },
  { key: 'rafe', name: 'Rafe Pennington', mail: 'rafe@pannier.example', role: 'admin', title: 'Admin', zone: 'Europe/London', teams: ['sales', 'recruiting'], directLine: '0117 496 0107' },
]

/** How they read times and days: the same wherever the demo is opened. */
export const FORMAT = { clockHours: 24, dayFirst: true } as const

/** The lines that the practice carrier has given to the firm. */
export const LINES: { key: string, e164: string, name: string, country: string, team?: 'sales' | 'recruiting', colleague?: string, private?: boolean, greeting?: string }[] = [
  { key: 'portland', e164: '+15035550118', name: 'Portland line', country: 'US', team: 'sales', greeting: 'Pannier & Post, the cargo bikes. We are all on the road or in the workshop. Say who you are and what you need after the tone, and one of us calls back today.' },
  { key: 'minneapolis', e164: '+16125550104', name: 'Minneapolis line', country: 'US', team: 'sales' },
  { key: 'halifax', e164: '+19025550120', name: 'Halifax line', country: 'CA', team: 'recruiting' },
  { key: 'jobs', e164: '+15035550119', name: 'Portland jobs line', country: 'US', team: 'recruiting' },
  { key: 'dartmouth', e164: '+17825550122', name: 'Dartmouth line', country: 'CA', team: 'sales' },
  { key: 'bristol', e164: '+447700900118', name: 'Bristol line', country: 'GB', team: 'sales' },
  { key: 'ada', e164: '+15035550190', name: 'Ada’s own line', country: 'US', colleague: 'ada', private: true },
]
