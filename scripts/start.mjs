// bin/start: installs, builds, lays the demo data, starts the practice world and Plauder.
import { existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { buildIfNeeded, installIfNeeded } from './prepare.mjs'
import { GATEWAY_SECRET, gatewayUrl, SMPP_ACCOUNT, smppPort, startApplication, startPractice, stop } from './world.mjs'

const unknown = process.argv.slice(2).filter(argument => !['--fresh', '--empty'].includes(argument))
if (unknown.length > 0) {
  console.error(`bin/start does not know ${unknown.join(' ')}. It knows --fresh, which throws away what is there first, and --empty, which lays no demo data.`)
  process.exit(2)
}
const [fresh, empty] = ['--fresh', '--empty'].map(argument => process.argv.includes(argument))
const port = Number(process.env.PORT ?? 4400)
const practicePort = Number(process.env.PRACTICE_PORT ?? port + 1)
const folder = resolve(process.env.PLAUDER_DATA ?? '.data')

installIfNeeded()
buildIfNeeded()

process.env.PLAUDER_BUILD = resolve('.output/parts')
const { layDemo, throwAway, COLLEAGUES, DEMO_PASSWORD } = await import(pathToFileURL(resolve('.output/parts/demo.mjs')).href)
// a firm of one's own has no accounts of the demo, at later starts either
const ownFirm = join(folder, 'own-firm')
if (fresh) await throwAway(folder).catch(refuse)
if (empty) {
  if (existsSync(join(folder, 'database')) && !existsSync(ownFirm)) refuse(new Error(`There is demo data in ${folder} already, and its accounts with it. Add --fresh to throw it away, or name another folder in PLAUDER_DATA.`))
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  writeFileSync(ownFirm, '')
}
if (!existsSync(ownFirm) && await layDemo(folder).catch(refuse)) console.log('Laid the demo data of Pannier & Post.')

const practice = startPractice({ folder, port, practicePort })
const application = startApplication({ folder, port, practicePort })
const children = [application.child, practice.child]

let stopping = false
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, async () => {
    if (stopping) return
    stopping = true
    console.log('\nStopping…')
    await Promise.all(children.map(stop))
    process.exit(0)
  })
}
for (const child of children) {
  child.once('exit', async (code) => {
    if (stopping) return
    stopping = true
    await Promise.all(children.map(stop))
    process.exit(code || 1)
  })
}

await Promise.all([practice.open, application.healthy]).catch(refuse)
const begin = application.began.at
const width = Math.max(...COLLEAGUES.map(one => one.mail.length))
const howToGetIn = begin
  ? `Nobody has begun yet. Make your firm, and yourself its admin, at\n    http://127.0.0.1:${port}${begin}`
  : existsSync(ownFirm)
    ? 'Sign in as who you are here.'
    : `Sign in with the password ${DEMO_PASSWORD} as\n${COLLEAGUES.map(one => `    ${one.mail.padEnd(width)}  ${one.name}, ${one.title.toLowerCase()} (${one.role})`).join('\n')}`
console.log(`
  Plauder    http://127.0.0.1:${port}
  Handsets   http://127.0.0.1:${practicePort}/handsets   (the telephones of the people you text)
  Mail drop  http://127.0.0.1:${practicePort}/mail   (what Plauder mails)
  SMS centre 127.0.0.1:${smppPort(practicePort)}, without TLS   (system id ${SMPP_ACCOUNT.systemId}, password ${SMPP_ACCOUNT.password}: a second carrier, to connect in Set-up)
  Gateway    ${gatewayUrl(practicePort)}   (secret ${GATEWAY_SECRET}: a third, over signed HTTP)

  ${howToGetIn}

  Ctrl-C stops them.
`)

function refuse(error) {
  console.error(error.message)
  process.exit(1)
}
