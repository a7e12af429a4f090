import { object, string } from 'yup'
import { route } from '~~/server/routing/route'
import { recordsNamed } from '~~/server/records/named'
import { MATTER_MODULES, PERSON_MODULES, type Module } from '~~/shared/modules'
import { line } from '~~/shared/schemas/common'

const KINDS: Record<string, readonly Module[]> = { person: PERSON_MODULES, company: ['company'], matter: MATTER_MODULES }

/** People, companies, or deals, jobs and cases, to choose one from. */
export default route(
  { query: object({ kind: string().oneOf(Object.keys(KINDS)).required(), words: line(100).default('') }) },
  ({ asker, query }) => recordsNamed(asker, KINDS[query.kind]!, query.words),
)
