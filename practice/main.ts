import { createServer } from 'node:http'
import { join } from 'node:path'
import { createApp, toNodeListener } from 'h3'
import { NO_FAULTS, seededRandom, type Faults } from './carrier/faults'
import { NumberBook } from './carrier/book'
import { Desk } from './carrier/desk'
import { PortingDesk } from './carrier/portings'
import { carrierRouter } from './carrier/http'
import { Network } from './carrier/network'
import { Reporter } from './carrier/reporter'
import { World } from './carrier/world'
import { USUAL_PACE } from './exchange/call'
import { Exchange } from './exchange/exchange'
import { exchangeRouter } from './exchange/http'
import { Gateway, NO_GATEWAY_FAULTS, type GatewayFaults } from './gateway/gateway'
import { handsetRouter } from './handsets/http'
import { MailDrop } from './mail/drop'
import { mailRouter } from './mail/http'
import { NO_SMSC_FAULTS, Smsc, type SmscFaults } from './smsc/smsc'

/**
 * The practice world: a carrier, an SMS centre, a gateway, a telephone exchange and the handsets that they reach, as a process of its
 * own. The application knows it only over the network, as it would know a real one.
 */
const need = (name: string) => {
  const value = process.env[name]
  if (!value) throw new Error(`${name} is not set; bin/start sets it.`)
  return value
}
const folder = need('PRACTICE_DATA')
const faults: Faults = { ...NO_FAULTS, ...JSON.parse(process.env.PRACTICE_FAULTS ?? '{}') }
const pace = { sent: 150, delivered: 700, ...JSON.parse(process.env.PRACTICE_PACE ?? '{}') }
const random = seededRandom(Number(process.env.PRACTICE_SEED ?? 1))

const world = new World(folder)
const network = new Network(world, new Reporter(need('PRACTICE_REPORT_TO'), need('PRACTICE_WEBHOOK_SECRET')), pace, faults, random)
const book = new NumberBook(folder, world, event => network.tell(event))
const portings = new PortingDesk(folder, world, book, event => network.tell(event))
const desk = new Desk(folder, world, event => network.tell(event))
const exchange = new Exchange(
  folder,
  new Reporter(need('PRACTICE_CALLS_REPORT_TO'), need('PRACTICE_WEBHOOK_SECRET')),
  { ...USUAL_PACE, ...JSON.parse(process.env.PRACTICE_CALL_PACE ?? '{}') },
  phone => world.off.has(phone),
)
const smscFaults: SmscFaults = { ...NO_SMSC_FAULTS, ...JSON.parse(process.env.PRACTICE_SMSC_FAULTS ?? '{}') }
const perSecond = Number(process.env.PRACTICE_PER_SECOND ?? 50)
const smsc = new Smsc(folder, world, JSON.parse(need('PRACTICE_SMPP_ACCOUNT')), pace, smscFaults, random, perSecond)
const gatewayFaults: GatewayFaults = { ...NO_GATEWAY_FAULTS, ...JSON.parse(process.env.PRACTICE_GATEWAY_FAULTS ?? '{}') }
const gateway = new Gateway(folder, world, need('PRACTICE_GATEWAY_SECRET'), pace, gatewayFaults, random, perSecond)
const drop = new MailDrop(join(folder, 'mail'))
const app = createApp()
app.use(handsetRouter(world, network, { book, desk, portings }, { smsc, gateway }, exchange, folder))
app.use(gateway.router())
app.use(mailRouter(drop))
app.use(exchangeRouter(exchange, book, need('PRACTICE_KEY')))
app.use(carrierRouter(world, network, { book, desk, portings }, { key: need('PRACTICE_KEY'), perSecond }, random))

const closeBook = await book.open()
const closeDesk = desk.open()
const closePortings = portings.open()
const post = await drop.listen(Number(need('PRACTICE_SMTP_PORT')))
const centre = await smsc.listen(Number(need('PRACTICE_SMPP_PORT')))
const server = createServer(toNodeListener(app))
server.listen(Number(need('PRACTICE_PORT')), '127.0.0.1', () => {
  network.resume()
  gateway.resume()
  void exchange.resume()
  process.stdout.write('the practice world is open\n')
})
for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.on(signal, () => {
    closeBook()
    closeDesk()
    closePortings()
    post.close()
    centre.close()
    server.close(() => process.exit(0))
    server.closeAllConnections()
  })
}
