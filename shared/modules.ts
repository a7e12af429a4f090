/** The kinds of records, and what the interface and the rules know of each. */
export const PERSON_MODULES = ['lead', 'candidate', 'client'] as const
export const MODULES = [...PERSON_MODULES, 'company'] as const
export type Module = typeof MODULES[number]
export type PersonModule = typeof PERSON_MODULES[number]

export const isPersonModule = (module: string): module is PersonModule => (PERSON_MODULES as readonly string[]).includes(module)

export const MODULE_FACTS: Record<Module, { one: string, many: string, slug: string, stages: string[] }> = {
  lead: { one: 'Lead', many: 'Leads', slug: 'leads', stages: ['New', 'Talking', 'Trial', 'Offer', 'Leased'] },
  candidate: { one: 'Candidate', many: 'Candidates', slug: 'candidates', stages: ['Applied', 'Talking', 'Trial shift', 'Offer', 'Hired'] },
  client: { one: 'Client', many: 'Clients', slug: 'clients', stages: ['Starting', 'Riding', 'Renewing', 'Paused'] },
  company: { one: 'Company', many: 'Companies', slug: 'companies', stages: [] },
}

export const moduleOfSlug = (slug: string): Module | undefined => MODULES.find(module => MODULE_FACTS[module].slug === slug)
