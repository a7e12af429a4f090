/** The kinds of records, and what the interface and the rules know of each. */
export const PERSON_MODULES = ['lead', 'candidate', 'client'] as const
/** What people are on. */
export const MATTER_MODULES = ['deal', 'job', 'case'] as const
/** What has a day, and hangs on people, companies and matters. */
export const DATED_MODULES = ['appointment', 'payment', 'agreement', 'handover'] as const
export const MODULES = [...PERSON_MODULES, 'company', ...MATTER_MODULES, ...DATED_MODULES] as const

export type Module = typeof MODULES[number]
export type PersonModule = typeof PERSON_MODULES[number]
export type MatterModule = typeof MATTER_MODULES[number]
export type DatedModule = typeof DATED_MODULES[number]

/** Modules with pipelines: a deal stands in a stage of its own, a job's candidates each stand in one. */
export const PIPELINE_MODULES = ['deal', 'job'] as const
export type PipelineModule = typeof PIPELINE_MODULES[number]

const isOneOf = <M extends Module>(modules: readonly M[]) => (module: string): module is M => (modules as readonly string[]).includes(module)
export const isPersonModule = isOneOf(PERSON_MODULES)
export const isMatterModule = isOneOf(MATTER_MODULES)
export const isDatedModule = isOneOf(DATED_MODULES)
export const isPipelineModule = isOneOf(PIPELINE_MODULES)

/** People can be put on these. */
export const holdsPeople = (module: Module): boolean => isMatterModule(module) || isDatedModule(module)

/** These may have telephone numbers of their own. */
export const hasNumbers = (module: Module): boolean => isPersonModule(module) || module === 'company' || module === 'deal'

interface ModuleFacts {
  one: string
  many: string
  slug: string
  /** In their order. A deal's are those of its pipeline. */
  stages: string[]
  /** Of these, those in which it is over: what happens with its people does not show on it any more. */
  over?: string[]
  /** A way to call it, for the field that asks for its name. */
  example?: string
}

export const MODULE_FACTS: Record<Module, ModuleFacts> = {
  lead: { one: 'Lead', many: 'Leads', slug: 'leads', stages: ['New', 'Talking', 'Trial', 'Offer', 'Leased'] },
  candidate: { one: 'Candidate', many: 'Candidates', slug: 'candidates', stages: ['Applied', 'Talking', 'Trial shift', 'Offer', 'Hired'] },
  client: { one: 'Client', many: 'Clients', slug: 'clients', stages: ['Starting', 'Riding', 'Renewing', 'Paused'] },
  company: { one: 'Company', many: 'Companies', slug: 'companies', stages: [], example: 'Holm & Daughters Bakery' },
  deal: { one: 'Deal', many: 'Deals', slug: 'deals', stages: [], example: 'Two long-johns for the bakery' },
  job: { one: 'Job', many: 'Jobs', slug: 'jobs', stages: ['Open', 'Paused', 'Filled', 'Called off'], over: ['Filled', 'Called off'], example: 'Rider, mornings' },
  case: { one: 'Case', many: 'Cases', slug: 'cases', stages: ['Open', 'Looked into', 'Waiting', 'Settled'], over: ['Settled'], example: 'Loose racks on two bikes' },
  appointment: { one: 'Appointment', many: 'Appointments', slug: 'appointments', stages: ['Planned', 'Kept', 'Missed', 'Called off'], over: ['Kept', 'Missed', 'Called off'], example: 'Test ride up the hill' },
  payment: { one: 'Payment', many: 'Payments', slug: 'payments', stages: ['Due', 'Paid', 'Written off'], over: ['Paid', 'Written off'], example: 'Lease for December' },
  agreement: { one: 'Agreement', many: 'Agreements', slug: 'agreements', stages: ['Running', 'Renewed', 'Ended'], over: ['Renewed', 'Ended'], example: 'Lease of four long-johns' },
  handover: { one: 'Handover', many: 'Handovers', slug: 'handovers', stages: ['Planned', 'Done', 'Called off'], over: ['Done', 'Called off'], example: 'Two long-johns, winter tyres' },
}

export const moduleOfSlug = (slug: string): Module | undefined => MODULES.find(module => MODULE_FACTS[module].slug === slug)

/** The same family stands together in lists of modules. */
export const MODULE_FAMILIES: readonly (readonly Module[])[] = [PERSON_MODULES, ['company', ...MATTER_MODULES], DATED_MODULES]
export const familyOf = (module: Module): readonly Module[] => MODULE_FAMILIES.find(family => family.includes(module))!
