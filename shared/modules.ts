/** The kinds of records, and what the interface and the rules know of each. */
export const PERSON_MODULES = ['lead', 'candidate', 'client'] as const
/** What people are on. */
export const MATTER_MODULES = ['deal', 'job', 'case'] as const
/** What has a day, and hangs on people, companies and matters. */
export const DATED_MODULES = ['appointment', 'payment', 'agreement', 'handover'] as const
export const MODULES = [...PERSON_MODULES, 'company', ...MATTER_MODULES, ...DATED_MODULES] as const

/** What may have telephone numbers of its own, so that it can be texted, and templates can be written for it. */
export const TEXTED_MODULES = [...PERSON_MODULES, 'company', 'deal'] as const

export type Module = typeof MODULES[number]
export type PersonModule = typeof PERSON_MODULES[number]
export type TextedModule = typeof TEXTED_MODULES[number]
export type MatterModule = typeof MATTER_MODULES[number]
export type DatedModule = typeof DATED_MODULES[number]

/** What stands in the stages of a pipeline: records of a module, or the candidates of a job. */
export const HELD = [...PERSON_MODULES, ...MATTER_MODULES, ...DATED_MODULES, 'applicant'] as const
export type Held = typeof HELD[number]

const isOneOf
  = <M extends Module>(modules: readonly M[]) =>
    (module: string): module is M =>
      (modules as readonly string[]).includes(module)
export const isPersonModule = isOneOf(PERSON_MODULES)
/** These may have telephone numbers of their own. */
export const hasNumbers = isOneOf(TEXTED_MODULES)
export const isMatterModule = isOneOf(MATTER_MODULES)
export const isDatedModule = isOneOf(DATED_MODULES)

/** Records of these stand in stages of their own. */
export const hasStages = (module: Module): module is Exclude<Module, 'company'> => module !== 'company'

/** What stands in the pipeline that a record chooses out of several: a deal itself, the candidates of a job. */
export const CHOICE_OF_PIPELINE: Partial<Record<Module, Held>> = { deal: 'deal', job: 'applicant' }
/** Of these a firm has as many pipelines as it likes; of all others one. */
export const hasManyPipelines = (held: Held): boolean => Object.values(CHOICE_OF_PIPELINE).includes(held)

/** People can be put on these. */
export const holdsPeople = (module: Module): boolean => isMatterModule(module) || isDatedModule(module)

interface ModuleFacts {
  one: string
  many: string
  slug: string
  /** A way to call it, for the field that asks for its name. */
  example?: string
}

export const MODULE_FACTS: Record<Module, ModuleFacts> = {
  lead: { one: 'Lead', many: 'Leads', slug: 'leads' },
  candidate: { one: 'Candidate', many: 'Candidates', slug: 'candidates' },
  client: { one: 'Client', many: 'Clients', slug: 'clients' },
  company: { one: 'Company', many: 'Companies', slug: 'companies', example: 'Holm & Daughters Bakery' },
  deal: { one: 'Deal', many: 'Deals', slug: 'deals', example: 'Two long-johns for the bakery' },
  job: { one: 'Job', many: 'Jobs', slug: 'jobs', example: 'Rider, mornings' },
  case: { one: 'Case', many: 'Cases', slug: 'cases', example: 'Loose racks on two bikes' },
  appointment: { one: 'Appointment', many: 'Appointments', slug: 'appointments', example: 'Test ride up the hill' },
  payment: { one: 'Payment', many: 'Payments', slug: 'payments', example: 'Lease for December' },
  agreement: { one: 'Agreement', many: 'Agreements', slug: 'agreements', example: 'Lease of four long-johns' },
  handover: { one: 'Handover', many: 'Handovers', slug: 'handovers', example: 'Two long-johns, winter tyres' },
}

/** What stands in a pipeline, as it is called. */
export const HELD_FACTS: Record<Held | Module, Pick<ModuleFacts, 'one' | 'many'>> = {
  ...MODULE_FACTS,
  applicant: { one: 'Candidate of a job', many: 'Candidates of jobs' },
}

export const moduleOfSlug = (slug: string): Module | undefined => MODULES.find(module => MODULE_FACTS[module].slug === slug)

/** The same family stands together in lists of modules. */
export const MODULE_FAMILIES: readonly (readonly Module[])[] = [PERSON_MODULES, ['company', ...MATTER_MODULES], DATED_MODULES]
export const familyOf = (module: Module): readonly Module[] => MODULE_FAMILIES.find(family => family.includes(module))!
