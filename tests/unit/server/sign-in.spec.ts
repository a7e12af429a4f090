import { sql } from 'drizzle-orm'
import { tx } from '~~/server/db/door'
import { endSignIn, openSignIn, whoSignedIn } from '~~/server/identity/sign-in'
import { hashPassword } from '~~/server/identity/password'
import { useDatabase } from '../../support/database'
import { DAY, later, makeFirm, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  const hash = await hashPassword('right')
  await tx(database => database.execute(sql`update colleague set password_hash = ${hash}`))
})

describe('signing in', () => {
  it('opens a sign-in that holds until it is ended or over, and is checked each time', async () => {
    const { signIn: token } = await openSignIn(' ADA@pannier.example ', 'right', { address: '192.0.2.1' }, DAY)
    expect(await whoSignedIn(token, DAY)).toMatchObject({ id: firm.ada.id, role: 'rep', teamIds: firm.ada.teamIds, peopleIds: expect.arrayContaining([firm.mika.id]) })
    expect(await whoSignedIn(token, later(DAY, 13 * 3_600_000))).toBeNull()
    expect(await whoSignedIn(`${token}x`, DAY)).toBeNull()
    expect(await whoSignedIn(undefined, DAY)).toBeNull()
    await endSignIn(token, DAY)
    expect(await whoSignedIn(token, DAY)).toBeNull()
  })

  it('keeps no token, only its hash', async () => {
    const { signIn: token } = await openSignIn('mika@pannier.example', 'right', { address: '192.0.2.1' }, DAY)
    const { rows } = await tx(database => database.execute<{ token_hash: string }>(sql`select token_hash from sign_in`))
    expect(rows.map(row => row.token_hash)).not.toContain(token)
  })

  it('gives the same answer to a wrong password and to nobody\'s address', async () => {
    const answers = await Promise.all(['noor@pannier.example', 'nobody@pannier.example'].map(email => openSignIn(email, 'wrong', { address: '192.0.2.2' }, DAY).catch(error => error.details)))
    expect(answers[0]).toMatchObject({ status: 422, fields: { password: expect.any(String) } })
    expect(answers[1]).toEqual(answers[0])
  })

  it('is refused after ten wrong passwords, right or wrong', async () => {
    for (let i = 0; i < 10; i++) await openSignIn('odile@pannier.example', 'wrong', { address: '192.0.2.3' }, DAY).catch(() => {})
    await expect(openSignIn('odile@pannier.example', 'right', { address: '192.0.2.3' }, DAY)).rejects.toMatchObject({ details: { status: 429, detail: expect.stringContaining('Try again in') } })
  })
})
