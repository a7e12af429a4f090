import { text } from 'node:stream/consumers'
import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { audit } from '~~/server/db/schema'
import { note } from '~~/server/identity/audit'
import { exportAudit, readAudit } from '~~/server/identity/audit-log'
import type { AuditAction } from '~~/shared/audit'
import { auditExport, auditQuery } from '~~/shared/schemas/audit'
import { useDatabase } from '../../support/database'
import { DAY, later, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())
beforeEach(async () => void await tx(database => database.delete(audit)))

const asked = (values: object = {}) => auditQuery.validateSync(values)
const actions = async (values: object = {}) => (await readAudit(firm.rafe, asked(values))).entries.map(({ action }) => action)

describe('the audit log', () => {
  it('is read from the newest on, page after page, without a gap where many stand at one moment', async () => {
    for (let i = 0; i < 120; i++) await note('signed-in', firm.ada.id, later(DAY, Math.floor(i / 40)), { address: String(i) })
    const found: string[] = []
    for (let after: string | null = null, first = true; first || after; first = false) {
      const page = await readAudit(firm.rafe, asked(after ? { after } : {}))
      found.push(...page.entries.map(({ details }) => String(details.address)))
      after = page.next
    }
    expect(found).toHaveLength(120)
    expect(new Set(found).size).toBe(120)
    expect(found.slice(0, 40).every(one => Number(one) >= 80)).toBe(true)
  })

  it('is narrowed by what it is about, who did it, the days as they are for the reader, and words', async () => {
    await note('signed-in', firm.ada.id, DAY)
    await note('line-changed', firm.rafe.id, later(DAY, 1_000), { from: { name: 'Portland 50% off' }, to: {} })
    // a minute after midnight in Portland
    await note('money-paid-in', firm.rafe.id, new Date('2026-11-26T08:01:00Z'), { words: 'Card' })
    expect(await actions()).toEqual(['money-paid-in', 'line-changed', 'signed-in'])
    expect(await actions({ group: 'set-up' })).toEqual(['line-changed'])
    expect(await actions({ by: firm.ada.id })).toEqual(['signed-in'])
    expect(await actions({ from: '2026-11-26' })).toEqual(['money-paid-in'])
    expect(await actions({ to: '2026-11-25' })).toEqual(['line-changed', 'signed-in'])
    expect(await actions({ words: '50% off' })).toEqual(['line-changed'])
    // a sign that matches anything elsewhere is itself here
    expect(await actions({ words: '5_%' })).toEqual([])
    expect(await actions({ words: 'PAID' })).toEqual(['money-paid-in'])
  })

  it('says the name of what it has only the id of, and bears an id that is none', async () => {
    const { recordId } = await makeLead(firm.ada)
    await tx(database => database.delete(audit))
    await note('timeline-exported', firm.ada.id, DAY, { recordId })
    await note('new-password-offered', firm.rafe.id, later(DAY, 1), { colleagueId: firm.noor.id })
    await note('recording-heard', firm.ada.id, later(DAY, 2), { recordId: 'none', callId: uuid() })
    const { entries } = await readAudit(firm.rafe, asked())
    expect(entries.map(({ by, what }) => [by, what])).toEqual([['Ada Lund', null], ['Rafe Pennington', 'Noor Farouk'], ['Ada Lund', 'Iris Holm']])
  })

  it('goes into a file whole, as it is narrowed, and that is noted', async () => {
    for (let i = 0; i < 1_050; i++) await note('signed-in', firm.ada.id, later(DAY, i))
    await note('team-made', firm.rafe.id, later(DAY, 5_000), { name: 'Care' })
    const rows = (await text(await exportAudit(firm.rafe, auditExport.validateSync({ group: 'sign-ins' }), later(DAY, 9_000)))).trim().split('\r\n')
    expect(rows).toHaveLength(1 + 1_050)
    expect(rows[0]).toBe('Time (UTC),By,Action,What,Details')
    expect(rows[1]).toMatch(/^2026-11-25T18:00:01\.049Z,Ada Lund,signed-in,,$/)
    expect(await actions({ group: 'taken-out' })).toEqual(['audit-exported' satisfies AuditAction])
  })

  it('is an admin’s to read and to take out', async () => {
    await expect(readAudit(firm.odile, asked())).rejects.toMatchObject({ details: { status: 403 } })
    await expect(exportAudit(firm.ada, auditExport.validateSync({}), DAY)).rejects.toMatchObject({ details: { status: 403 } })
  })
})
