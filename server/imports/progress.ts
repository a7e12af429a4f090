import { and, desc, eq, gt, ne } from 'drizzle-orm'
import { writeCsv } from '~~/core/formats/write-csv'
import type { ImportProgress } from '~~/shared/import'
import type { Module } from '~~/shared/modules'
import { read } from '../db/door'
import { importMatching, importPiece, recordImport } from '../db/schema'
import { notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'

const DAYS_SHOWN = 30 * 86_400_000

/** One's own import. */
export async function progressOf(asker: SignedIn, id: string): Promise<ImportProgress> {
  const [found] = await read(database =>
    database
      .select()
      .from(recordImport)
      .where(and(eq(recordImport.id, id), eq(recordImport.colleagueId, asker.id))),
  )
  if (!found) throw notFound('import')
  return shown(found)
}

/** My files of the last weeks, newest first. */
export async function recentImports(asker: SignedIn, module: Module, now: Date): Promise<ImportProgress[]> {
  const rows = await read(database =>
    database
      .select()
      .from(recordImport)
      .where(
        and(
          eq(recordImport.colleagueId, asker.id),
          eq(recordImport.module, module),
          ne(recordImport.state, 'loading'),
          gt(recordImport.madeAt, new Date(now.getTime() - DAYS_SHOWN)),
        ),
      )
      .orderBy(desc(recordImport.madeAt))
      .limit(5),
  )
  return rows.map(shown)
}

const shown = ({
  id,
  module,
  fileName,
  state,
  total,
  done,
  made,
  joined,
  leftOut,
  thereAlready,
  refused,
  partly,
  keptBack,
  madeAt,
}: typeof recordImport.$inferSelect): ImportProgress => ({
  id,
  module,
  fileName,
  state,
  total,
  done,
  made,
  joined,
  leftOut,
  thereAlready,
  refused,
  partly,
  keptBack,
  madeAt: madeAt.getTime(),
})

/** What columns became the last time, by plain heading. */
export async function rememberedMatching(asker: SignedIn, module: Module): Promise<Record<string, string | null>> {
  const rows = await read(database =>
    database
      .select()
      .from(importMatching)
      .where(and(eq(importMatching.colleagueId, asker.id), eq(importMatching.module, module))),
  )
  return Object.fromEntries(rows.map(({ heading, target }) => [heading, target]))
}

/** The rows that were refused, as they stood in the file, with the reasons in a column of their own. */
export async function* refusedRows(asker: SignedIn, id: string): AsyncGenerator<string> {
  await progressOf(asker, id)
  const [found] = await read(database =>
    database.select({ headings: recordImport.headings }).from(recordImport).where(eq(recordImport.id, id)),
  )
  yield `\uFEFF${writeCsv([[...found!.headings, 'Why it was refused']])}`
  for (let place = 0; ; place++) {
    const [piece] = await read(database =>
      database
        .select()
        .from(importPiece)
        .where(and(eq(importPiece.importId, id), eq(importPiece.place, place))),
    )
    if (!piece) return
    for (const [i, outcome] of (piece.outcomes ?? []).entries())
      if (outcome.kind === 'refused') yield writeCsv([[...piece.rows[i]!, outcome.reasons.join(' ')]])
  }
}
