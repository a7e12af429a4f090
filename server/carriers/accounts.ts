import { asc, eq, sql } from 'drizzle-orm'
import { CARRIER_KINDS, carrierNameOf, reportPath, type CarrierTried, type CarrierWay, type SetUpCarrier } from '~~/shared/carriers'
import { can } from '~~/shared/permissions'
import type { CarrierForm, MakeCarrierForm, TryCarrierForm } from '~~/shared/schemas/carrier'
import { afterCommit, ask, read, tx } from '../db/door'
import { carrierAccount, line } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { say } from '../live/between'
import type { WayIn } from './http/try'
import { tryCarrier, type OpenAccount } from './kinds'
import { allCarriers, carrierRegistered } from './registry'
import { canSeal, seal, unseal } from '../sealing/seal'
import { settings as settingsOfHouse } from '../settings'

type Account = typeof carrierAccount.$inferSelect

/** A connection begins, and ends, a moment after its account. */
const beginning = (now: Date) => ({ is: 'connecting' as const, since: now.getTime(), why: null })
const isOfAccount = (name: string) => CARRIER_KINDS.some(kind => name.startsWith(`${kind}-`))
/** Its kind and its settings are of one piece: the form that they came by has seen to that. */
const wayOf = ({ kind, settings }: Pick<Account, 'kind' | 'settings'>) => ({ kind, settings }) as CarrierWay

/** Every carrier, those that nobody here has set up among them. */
export async function listCarriers(asker: SignedIn, now = new Date()): Promise<SetUpCarrier[]> {
  mustEdit(asker)
  const accounts = await read(database => database.select().from(carrierAccount).orderBy(asc(carrierAccount.madeAt)))
  const { rows } = await ask<{ carrier: string, name: string }>(sql`select carrier, name from ${line} order by name`)
  const linesOf = (name: string) => rows.filter(({ carrier }) => carrier === name).map(one => one.name)
  const shipped = allCarriers().filter(({ name }) => !isOfAccount(name))
  return [
    ...accounts.map(({ id, name, title, kind, settings }) => {
      const carrier = carrierRegistered(name)
      const state = carrier?.state ? carrier.state() : beginning(now)
      return { name, title, account: { id, ...wayOf({ kind, settings }) }, state, lines: linesOf(name) }
    }),
    ...shipped.map(({ name, title }) => ({ name, title, account: null, state: null, lines: linesOf(name) })),
  ]
}

/** Connects a carrier; its lines are chosen afterwards. Making the same again makes nothing twice. */
export async function makeAccount(asker: SignedIn, { id, secret, ...form }: MakeCarrierForm, now: Date): Promise<SetUpCarrier[]> {
  mustEdit(asker)
  mustSeal()
  await tx(async (database) => {
    const name = carrierNameOf(form.kind, id)
    const made = await database.insert(carrierAccount)
      .values({ ...form, id, name, secret: seal(secret, id), madeBy: asker.id, madeAt: now })
      .onConflictDoNothing().returning({ id: carrierAccount.id })
    if (made.length === 0) return
    await note('carrier-connected', asker.id, now, { carrier: name, ...form })
    announce()
  })
  return listCarriers(asker)
}

/** What is on its way to it stays; the connection is made anew. */
export async function changeAccount(asker: SignedIn, id: string, { secret, ...form }: CarrierForm, now: Date): Promise<SetUpCarrier[]> {
  mustEdit(asker)
  await tx(async (database) => {
    const before = await mustFind(id)
    mustBeOfKind(before, form.kind)
    if (secret !== null) mustSeal()
    await database.update(carrierAccount)
      .set({ ...form, ...(secret !== null && { secret: seal(secret, id) }), version: sql`${carrierAccount.version} + 1` })
      .where(eq(carrierAccount.id, id))
    const { title, settings, name } = before
    await note('carrier-changed', asker.id, now, { carrier: name, from: { title, settings }, to: form, newSecret: secret !== null })
    announce()
  })
  return listCarriers(asker)
}

/** Lines need a carrier: none goes while any is on it. What is told later of its texts is not heard any more. */
export async function removeAccount(asker: SignedIn, id: string, now: Date): Promise<SetUpCarrier[]> {
  mustEdit(asker)
  await tx(async (database) => {
    const { name, title } = await mustFind(id)
    const lines = await database.select({ name: line.name }).from(line).where(eq(line.carrier, name)).orderBy(asc(line.name))
    if (lines.length > 0)
      throw conflict('has-lines', 'Lines are on it', `${lines.map(one => one.name).join(', ')} text over it. Give them another carrier first.`)
    await database.delete(carrierAccount).where(eq(carrierAccount.id, id))
    await note('carrier-removed', asker.id, now, { carrier: name, title })
    announce()
  })
  return listCarriers(asker)
}

/** Tries whether the carrier lets one in, before anything of it is kept. */
export async function tryAccount(asker: SignedIn, { id, kind, title, settings, secret }: TryCarrierForm, now: Date): Promise<CarrierTried> {
  mustEdit(asker)
  const known = id === null ? null : await mustFind(id)
  if (known) mustBeOfKind(known, kind)
  const password = secret || (known && unseal(known.secret, known.id))
  if (!password)
    throw badInput({ secret: known ? 'The password that is kept cannot be read with the key of this machine. Write it again.' : 'Write the password.' })
  // what it tells is heard by the secret that is kept
  const wayIn = known && !secret ? wayInOf(known) : null
  const tried = await tryCarrier({ name: known?.name ?? kind, title, secret: password, ...wayOf({ kind, settings }) }, wayIn)
  await note('carrier-tried', asker.id, now, { carrier: known?.name ?? null, settings, ok: tried.ok })
  return tried
}

const wayInOf = ({ id, name }: Account): WayIn => ({
  reportTo: `${settingsOfHouse().PLAUDER_HOME.replace(/\/$/, '')}${reportPath(name)}`,
  heard: async nonce => (await mustFind(id)).hello === nonce,
})

/** A carrier has answered our hello. */
export async function heedHello(name: string, nonce: string): Promise<void> {
  await tx(database => database.update(carrierAccount).set({ hello: nonce }).where(eq(carrierAccount.name, name)))
}

/** Every account that can be used, with its secret, and which version of it. */
export async function openAccounts(): Promise<(OpenAccount & Pick<Account, 'version'> & { locked: boolean })[]> {
  const accounts = await read(database => database.select().from(carrierAccount))
  return accounts.map(({ id, name, kind, title, settings, secret, version }) => {
    const open = canSeal() ? unseal(secret, id) : null
    return { name, title, ...wayOf({ kind, settings }), version, secret: open ?? '', locked: open === null }
  })
}

/** Whoever holds connections looks at the accounts again. */
const announce = () => afterCommit(() => say('carriers', null))

async function mustFind(id: string): Promise<Account> {
  const [found] = await read(database => database.select().from(carrierAccount).where(eq(carrierAccount.id, id)))
  if (!found) throw notFound('carrier')
  return found
}

/** Lines and messages name it by its kind, and its secret is one of that kind. */
function mustBeOfKind({ kind, title }: Account, asked: Account['kind']): void {
  if (kind !== asked) throw badInput({ kind: `How one gets to ${title} stays what it is. Connect another carrier for the other way.` })
}

function mustEdit(asker: SignedIn): void {
  if (!can(asker, 'carrier.edit', {})) throw notAllowed('see how carriers are connected; an admin does')
}

function mustSeal(): void {
  if (!canSeal())
    throw conflict('no-key', 'It cannot be kept', 'Passwords are kept sealed, and this machine has no key for that. Whoever runs Plauder sets PLAUDER_SEAL_KEY (docs/operating.md).')
}
