import { missingFrom, NO_PAPERS, type Papers } from '~~/core/papers/papers'
import type { PAPER_TYPES, PaperFile } from '~~/shared/papers'
import { MOST_PAPER_BYTES, MOST_PAPER_FILES } from '~~/shared/papers'
import { can } from '~~/shared/permissions'
import type { PapersForm } from '~~/shared/schemas/papers'
import { asc, count, eq } from 'drizzle-orm'
import { read, tx } from '../db/door'
import { colleague, firmPapers, paperFile } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'

export function mustEditPapers(asker: SignedIn): void {
  if (!can(asker, 'carrier.edit', {})) throw notAllowed('see the papers that carriers ask for; an admin does')
}

/** What is written by now. */
export async function readPapers(): Promise<{ papers: Papers, version: number }> {
  const [found] = await read(database => database.select({ papers: firmPapers.papers, version: firmPapers.version }).from(firmPapers))
  return { papers: { ...NO_PAPERS, ...found?.papers }, version: found?.version ?? 0 }
}

/** @throws Problem 409 where somebody else has written on them meanwhile */
export async function writePapers(asker: SignedIn, { after, ...papers }: PapersForm, now: Date): Promise<void> {
  mustEditPapers(asker)
  await tx(async (database) => {
    const [before] = await database.select({ version: firmPapers.version, by: colleague.name }).from(firmPapers)
      .innerJoin(colleague, eq(colleague.id, firmPapers.changedBy)).for('update', { of: firmPapers })
    if ((before?.version ?? 0) !== after)
      throw conflict('papers-changed', 'Somebody was faster', `${before?.by ?? 'Somebody'} has written on the papers meanwhile. What you wrote stands here still: look at theirs in another tab, and save again to put yours in its place.`)
    const values = { papers, version: after + 1, changedBy: asker.id, changedAt: now }
    await database.insert(firmPapers).values({ id: 1, ...values }).onConflictDoUpdate({ target: firmPapers.id, set: values })
    await note('papers-written', asker.id, now, { missing: missingFrom(papers) })
  })
}

/** Files that go with them, without their bytes. */
export const listFiles = (): Promise<PaperFile[]> => read(database => database
  .select({ id: paperFile.id, name: paperFile.name, type: paperFile.type, size: paperFile.size })
  .from(paperFile).orderBy(asc(paperFile.addedAt), asc(paperFile.id)))

export const filesWithBytes = () => read(database => database.select({ name: paperFile.name, type: paperFile.type, bytes: paperFile.bytes })
  .from(paperFile).orderBy(asc(paperFile.addedAt), asc(paperFile.id)))

/** What a file is by its first bytes: whatever its name says. */
function typeOf(file: Buffer): typeof PAPER_TYPES[number] | null {
  if (file.subarray(0, 5).toString('latin1') === '%PDF-') return 'application/pdf'
  if (file.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]))) return 'image/png'
  if (file.subarray(0, 3).equals(Buffer.from([0xFF, 0xD8, 0xFF]))) return 'image/jpeg'
  return null
}

/**
 * Keeps a file with the papers. The same once more changes nothing.
 *
 * @throws Problem 422 for one that is no PDF, PNG or JPEG, or too large; 409 for one too many
 */
export async function addFile(asker: SignedIn, id: string, name: string, file: Buffer, now: Date): Promise<void> {
  mustEditPapers(asker)
  const type = typeOf(file)
  if (!type) throw badInput({ file: `“${name}” is neither a PDF nor a PNG or JPEG picture. Carriers take no other.` })
  if (file.length > MOST_PAPER_BYTES) throw badInput({ file: `“${name}” has more than ${MOST_PAPER_BYTES / 1_000_000} MB. Make it smaller.` })
  await tx(async (database) => {
    const [{ there } = { there: 0 }] = await database.select({ there: count() }).from(paperFile)
    if (there >= MOST_PAPER_FILES) throw conflict('too-many-files', 'Enough files', `There are ${MOST_PAPER_FILES} already. Remove one first.`)
    const added = await database.insert(paperFile)
      .values({ id, name, type, size: file.length, bytes: file, addedBy: asker.id, addedAt: now })
      .onConflictDoNothing().returning({ id: paperFile.id })
    if (added.length > 0) await note('paper-file-added', asker.id, now, { fileName: name })
  })
}

export async function removeFile(asker: SignedIn, id: string, now: Date): Promise<void> {
  mustEditPapers(asker)
  await tx(async (database) => {
    const [gone] = await database.delete(paperFile).where(eq(paperFile.id, id)).returning({ name: paperFile.name })
    if (gone) await note('paper-file-removed', asker.id, now, { fileName: gone.name })
  })
}

export async function readFileOf(asker: SignedIn, id: string): Promise<{ name: string, type: string, bytes: Buffer }> {
  mustEditPapers(asker)
  const [found] = await read(database => database.select({ name: paperFile.name, type: paperFile.type, bytes: paperFile.bytes })
    .from(paperFile).where(eq(paperFile.id, id)))
  if (!found) throw notFound('file')
  return found
}
