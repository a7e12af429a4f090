// bin/start: installs, builds, lays the demo data, starts the practice world and Plauder.
import { resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { buildIfNeeded, installIfNeeded } from './prepare.mjs'
import { startApplication, startPractice, stop } from './world.mjs'

const unknown = process.argv.slice(2).filter(argument => argument !== '--fresh')
if (unknown.length > 0) {
  console.error(`bin/start does not know ${unknown.join(' ')}. It knows --fresh, which lays the demo data anew.`)
  process.exit(2)
}
const fresh = process.argv.includes('--fresh')
const port = Number(process.env.PORT ?? 4400)
const practicePort = Number(process.env.PRACTICE_PORT ?? port + 1)
const folder = resolve(process.env.PLAUDER_DATA ?? '.data')

installIfNeeded()
buildIfNeeded()

process.env.PLAUDER_BUILD = resolve('.output/parts')
const { layDemo, COLLEAGUES, DEMO_PASSWORD } = await import(pathToFileURL(resolve('.output/parts/demo.mjs')).href)
if (await layDemo(folder, fresh).catch(refuse)) console.log('Laid the demo data of Pannier & Post.')

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
const width = Math.max(...COLLEAGUES.map(one => one.email.length))
console.log(`
  Plauder    http://127.0.0.1:${port}
  Handsets   http://127.0.0.1:${practicePort}/handsets   (the telephones of the people you text)

  Sign in with the password ${DEMO_PASSWORD} as
${COLLEAGUES.map(one => `    ${one.email.padEnd(width)}  ${one.name}, ${one.title.toLowerCase()} (${one.role})`).join('\n')}

  Ctrl-C stops both.
`)

function refuse(error) {
  console.error(error.message)
  process.exit(1)
}
