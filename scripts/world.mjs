// Starts the practice world and the application as processes of their own, and ends them again.
import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** What the practice carrier gave to its customer: made once, kept in the data folder, readable by its owner only. */
function credentials(folder) {
  const file = join(folder, 'practice-credentials.json')
  if (!existsSync(file)) {
    mkdirSync(folder, { recursive: true, mode: 0o700 })
    writeFileSync(file, JSON.stringify({ key: randomBytes(24).toString('base64url'), webhookSecret: randomBytes(24).toString('base64') }), { mode: 0o600 })
  }
  return JSON.parse(readFileSync(file, 'utf8'))
}

/** With which passwords of carriers are sealed: made once, in a file of its own, so that it can be left out of backups. */
function sealKey(folder) {
  const file = join(folder, 'seal-key')
  if (!existsSync(file)) {
    mkdirSync(folder, { recursive: true, mode: 0o700 })
    writeFileSync(file, randomBytes(32).toString('base64'), { mode: 0o600 })
  }
  return readFileSync(file, 'utf8')
}

/** What the application has to know so that nobody else can speak for the practice carrier, or read what is sealed. */
export function secretsFor(folder) {
  const { key, webhookSecret } = credentials(folder)
  return { PLAUDER_CARRIER_KEY: key, PLAUDER_WEBHOOK_SECRET: webhookSecret, PLAUDER_SEAL_KEY: sealKey(folder) }
}

/** Resolves when the process has said this; rejects if it ends before. */
function said(child, words) {
  return new Promise((resolve, reject) => {
    child.once('exit', code => reject(new Error(`It ended with ${code} before it was ready.`)))
    child.stdout.on('data', chunk => String(chunk).includes(words) && resolve())
  })
}

/** Where the post of the practice world takes mails. */
const smtpPort = practicePort => practicePort + 2
/** Where its SMS centre is, and its one account. Whoever is on this machine may know it. */
export const smppPort = practicePort => practicePort + 3
export const SMPP_ACCOUNT = { systemId: 'pannier', password: 'dispatch' }
/** Where its gateway takes texts (docs/gateway.md), and the secret of its one customer. */
export const gatewayUrl = practicePort => `http://127.0.0.1:${practicePort}/gateway`
export const GATEWAY_SECRET = 'whsec_cGFubmllciBhbmQgdGhlIGdhdGV3YXksIDEyMw=='

export function startPractice({ folder, port, practicePort, env = {} }) {
  const { key, webhookSecret } = credentials(folder)
  const child = spawn(process.execPath, ['.output/parts/practice.mjs'], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      ...process.env,
      PRACTICE_PORT: String(practicePort),
      PRACTICE_SMTP_PORT: String(smtpPort(practicePort)),
      PRACTICE_SMPP_PORT: String(smppPort(practicePort)),
      PRACTICE_SMPP_ACCOUNT: JSON.stringify(SMPP_ACCOUNT),
      PRACTICE_GATEWAY_SECRET: GATEWAY_SECRET,
      PRACTICE_DATA: join(folder, 'practice'),
      PRACTICE_REPORT_TO: `http://127.0.0.1:${port}/api/carriers/practice/events`,
      PRACTICE_CALLS_REPORT_TO: `http://127.0.0.1:${port}/api/exchanges/practice/events`,
      PRACTICE_KEY: key,
      PRACTICE_WEBHOOK_SECRET: webhookSecret,
      ...env,
    },
  })
  return { child, open: said(child, 'open') }
}

/** @param stderr where what goes wrong is said: `pipe` for who reads it */
export function startApplication({ folder, port, practicePort, env = {}, stderr = 'inherit' }) {
  const child = spawn(process.execPath, ['.output/server/index.mjs'], {
    stdio: ['ignore', 'pipe', stderr],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      // the demo's accounts are for this machine only
      HOST: '127.0.0.1',
      PORT: String(port),
      PLAUDER_DATA: folder,
      PLAUDER_CARRIER_URL: `http://127.0.0.1:${practicePort}`,
      PLAUDER_SMTP_URL: `smtp://127.0.0.1:${smtpPort(practicePort)}`,
      PLAUDER_HOME: `http://127.0.0.1:${port}`,
      ...secretsFor(folder),
      ...env,
    },
  })
  /** Where the firm is made, as long as there is none. */
  const began = { at: null }
  child.stdout.on('data', (chunk) => {
    began.at ??= /"begin":"([^"]+)"/.exec(String(chunk))?.[1] ?? null
    if (!process.env.PLAUDER_QUIET) process.stdout.write(chunk)
  })
  return { child, began, healthy: healthy(child, port) }
}

/** Asks until it answers, or until the process has ended. */
async function healthy(child, port) {
  let ended = false
  child.once('exit', () => ended = true)
  while (!ended) {
    try {
      const answer = await fetch(`http://127.0.0.1:${port}/api/ready`)
      if (answer.ok) return
    }
    catch {
      // not listening yet
    }
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  throw new Error('Plauder ended before it could serve.')
}

/** Ends a process as Ctrl-C would, and waits for it. */
export function stop(child) {
  if (child.exitCode !== null || child.signalCode) return Promise.resolve()
  const ended = new Promise(resolve => child.once('exit', resolve))
  child.kill('SIGTERM')
  return ended
}
