import { sql, type SQL } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import { importPiece, recordImport } from '../db/schema'

/** The ids of all records that rows of my file became, were joined to, or were left out for. */
export const broughtBy = (asker: Asker, importId: string): SQL => sql`
  select (o.outcome ->> 'id')::uuid from ${recordImport} i join ${importPiece} p on p.import_id = i.id
    cross join lateral jsonb_array_elements(p.outcomes) as o(outcome)
  where i.id = ${importId}::uuid and i.colleague_id = ${asker.id}::uuid and o.outcome ->> 'id' is not null`
