/** The page of handsets: a list of telephones, one of them open, live. */
interface Text {
  id: string
  at: number
  direction: 'in' | 'out'
  other: string
  text: string
  parts: number
  pictures?: { file: string }[]
}
interface Call {
  direction: 'out' | 'in'
  line: string
  phone: string
  state: 'own-ringing' | 'ringing' | 'talking' | 'leaving'
  isOwn: boolean
  tones: string
  held: boolean
  muted: boolean
  recording: boolean
  toMailbox: boolean
  greeting: string
}
interface Phone { number: string, owner: string | null, on: boolean, manner: string, call: Call | null, last: Text | null }

interface Looked { country: string, ref: string, state: 'looked-at' | 'accepted' | 'asked-back', until: number }

interface Ported { number: string, from: string, state: 'asked' | 'sent-back' | 'agreed' | 'done', until: number }

interface Given { number: string, state: 'ordered' | 'given' | 'ending' | 'ended', until: number }

const MOST_SHOWN = 60
const find = <E extends HTMLElement>(id: string) => document.getElementById(id) as E
const field = find<HTMLInputElement>('find')
const list = find('phones')
const texts = find('texts')
const to = find<HTMLSelectElement>('to')
const words = find<HTMLTextAreaElement>('words')
const problem = find('problem')
const power = find('power')
const manner = find<HTMLSelectElement>('manner')
const call = find('call')
const callActs = find('call-acts')

const MANNERS: Record<string, string> = {
  'by-hand': 'I take the call here, or not',
  'picks-up': 'it is picked up',
  'lets-it-ring': 'it rings until they give up',
  'busy': 'it is busy',
  'mailbox': 'its mailbox answers',
  'no-such-number': 'there is no such number any more',
}
for (const [value, words] of Object.entries(MANNERS)) manner.add(new Option(words, value))

let phones: Phone[] = []
let chosen: string | null = new URLSearchParams(location.search).get('phone')

function element(tag: string, className: string, content: string): HTMLElement {
  const made = document.createElement(tag)
  made.className = className
  made.textContent = content
  return made
}

function picture(file: string): HTMLElement {
  const made = document.createElement('img')
  made.src = `/handsets/api/pictures/${file}`
  made.alt = 'A picture'
  return made
}

async function get<T>(path: string): Promise<T> {
  const response = await fetch(`/handsets/api/${path}`)
  return await response.json() as T
}

async function post(path: string, body: object): Promise<void> {
  const response = await fetch(`/handsets/api/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
  problem.textContent = response.ok ? '' : (await response.json() as { detail: string }).detail
}

async function load(): Promise<void> {
  const world = await get<{ lines: string[], numbers: Given[], portings: Ported[], papers: Looked[], phones: Phone[] }>('phones')
  phones = world.phones.sort(
    (a, b) =>
      Number(b.call !== null) - Number(a.call !== null)
      || (b.last?.at ?? 0) - (a.last?.at ?? 0)
      || (a.owner ?? a.number).localeCompare(b.owner ?? b.number),
  )
  const known = [...to.options].map(({ value }) => value)
  if (known.join() !== world.lines.join()) to.replaceChildren(...world.lines.map(line => new Option(line, line, false, line === to.value)))
  find('number-list').replaceChildren(...world.numbers.map(numberRow), ...world.portings.filter(({ state }) => state !== 'done').map(portedRow))
  find('papers-list').replaceChildren(...world.papers.length > 0 ? world.papers.map(papersRow) : [element('li', '', 'None are there.')])
  showList()
  await showHandset()
}

function showList(): void {
  const wanted = field.value.trim().toLowerCase()
  const digits = wanted.replace(/\D/g, '')
  const found = phones.filter(
    ({ number, owner }) => owner?.toLowerCase().includes(wanted) || (digits !== '' && number.includes(digits)) || wanted === '',
  )
  list.replaceChildren(...found.slice(0, MOST_SHOWN).map(({ number, owner, last, call }) => {
    const row = document.createElement('li')
    const button = document.createElement('button')
    button.type = 'button'
    button.setAttribute('aria-current', String(number === chosen))
    button.append(
      element('span', '', owner ?? number),
      element('span', 'last', call ? (call.state.endsWith('ringing') ? 'it rings' : 'talking') : last ? last.text : number),
    )
    button.addEventListener('click', () => {
      chosen = number
      void load()
    })
    row.append(button)
    return row
  }))
  if (/^\+\d{8,15}$/.test(wanted) && found.length === 0) list.replaceChildren(newPhone(wanted))
}

/** What happens to a number when its day comes, and what it is called until then. */
const DAYS: Record<Given['state'], { is: string, act: string | null }> = {
  ordered: { is: 'will be there on', act: 'Give it now' },
  given: { is: 'is paid until', act: 'Let its month be over' },
  ending: { is: 'ends on', act: 'Let its month be over' },
  ended: { is: 'has ended on', act: null },
}

function numberRow({ number, state, until }: Given): HTMLElement {
  const row = element('li', '', `${number} ${DAYS[state].is} ${new Date(until).toISOString().slice(0, 10)} `)
  const { act } = DAYS[state]
  if (!act) return row
  row.append(quick(act, number, () => post('numbers', { number })))
  return row
}

/** A number on its way from another carrier. */
function portedRow({ number, from, state, until }: Ported): HTMLElement {
  const day = new Date(until).toISOString().slice(0, 10)
  const is = state === 'sent-back' ? `was sent back by ${from}` : state === 'asked' ? `is asked of ${from}, who answers by ${day}` : `comes from ${from} on ${day}`
  const row = element('li', '', `${number} ${is} `)
  if (state !== 'sent-back') row.append(quick(state === 'asked' ? 'Answer now' : 'Let the day come', number, () => post('numbers', { number })))
  return row
}

const LOOKED: Record<Looked['state'], string> = { 'looked-at': 'are looked through until', 'accepted': 'were accepted on', 'asked-back': 'went back on' }

function papersRow({ country, ref, state, until }: Looked): HTMLElement {
  const row = element('li', '', `${ref} ${LOOKED[state]} ${new Date(until).toISOString().slice(0, 10)} `)
  if (state === 'looked-at') row.append(quick('Answer now', ref, () => post('papers', { country })))
  return row
}

/** What would take days is done now. */
function quick(act: string, what: string, doIt: () => Promise<void>): HTMLElement {
  const button = element('button', 'quick', act)
  button.setAttribute('aria-label', `${act}: ${what}`)
  button.addEventListener('click', async () => {
    await doIt()
    await load()
  })
  return button
}

/** Any number can be a telephone here, also one that nobody knows. */
function newPhone(number: string): HTMLElement {
  const row = document.createElement('li')
  const button = element('button', '', `Take a phone with the number ${number}`) as HTMLButtonElement
  button.type = 'button'
  button.addEventListener('click', () => {
    phones.push({ number, owner: null, on: true, manner: 'by-hand', call: null, last: null })
    chosen = number
    showList()
    void showHandset()
  })
  row.append(button)
  return row
}

async function showHandset(): Promise<void> {
  find('handset').hidden = chosen === null
  find('hint').hidden = chosen !== null
  if (chosen === null) return
  const phone = phones.find(one => one.number === chosen)
  find('owner').textContent = phone?.owner ?? 'Somebody'
  find('number').textContent = chosen
  power.textContent = phone?.on === false ? 'Switched off' : 'Switched on'
  power.setAttribute('aria-pressed', String(phone?.on !== false))
  showCall(phone ?? null)
  const all = await get<Text[]>(`texts?phone=${encodeURIComponent(chosen)}`)
  texts.replaceChildren(...all.map(({ direction, text, other, at, parts, pictures = [] }) => {
    const row = document.createElement('li')
    row.className = direction === 'out' ? 'own' : ''
    const time = new Date(at).toTimeString().slice(0, 5)
    row.append(
      ...pictures.map(({ file }) => picture(file)),
      element('p', 'words', text),
      element('p', 'about', `${direction === 'out' ? 'to' : 'from'} ${other}, ${time}${parts > 1 ? `, ${parts} parts` : ''}`),
    )
    return row
  }))
  texts.scrollTop = texts.scrollHeight
  const lastFrom = all.findLast(text => text.direction === 'in')?.other
  if (lastFrom) to.value = lastFrom
}

function sayCall({ isOwn, state, direction, line, phone, toMailbox, greeting, held, muted, recording, tones }: Call): string {
  if (isOwn)
    return state === 'own-ringing'
      ? `${line} rings here first; pick up, and ${phone} is called`
      : state === 'ringing' && direction === 'in' ? `${phone} calls ${line}` : `On the call of ${line} with ${phone}`
  if (toMailbox) return `The mailbox of ${line}${greeting ? ` says “${greeting}” and` : ''} listens`
  if (state === 'leaving') return `${line} leaves a message that was spoken before`
  if (state === 'talking')
    return `Talking with ${line}${held ? ', on hold' : muted ? ', who is muted' : ''}${recording ? '. “This call is recorded.”' : ''}${tones ? `. Tones: ${tones}` : ''}`
  return direction === 'out' ? `${line} is calling` : `Calling ${line}`
}

/** The call that is on, and what can be done with it. */
function showCall(phone: Phone | null): void {
  const on = phone?.call ?? null
  if (phone) manner.value = phone.manner
  call.textContent = on === null ? '' : sayCall(on)
  const rings = on !== null && (on.isOwn ? on.state === 'own-ringing' || (on.state === 'ringing' && on.direction === 'in') : on.state === 'ringing' && on.direction === 'out')
  const acts
    = on === null
      ? [['call', 'Call the number below']]
      : rings
        ? [
            ['pick-up', 'Pick up'],
            ['decline', 'Decline'],
          ]
        : [['hang-up', on.toMailbox ? 'Leave the message, and hang up' : 'Hang up']]
  callActs.replaceChildren(...acts.map(([act, words]) => {
    const button = element('button', 'quick-call', words!) as HTMLButtonElement
    button.type = 'button'
    button.addEventListener('click', async () => {
      await post('calls', { phone: chosen, act, to: to.value })
      await load()
    })
    return button
  }))
}

async function write(text: string, picture?: { type: string, base64: string }): Promise<void> {
  await post('texts', { phone: chosen, to: to.value, text, picture })
  if (problem.textContent === '') words.value = ''
  await load()
}

/** A picture goes as soon as it is chosen, with what is written. */
const pictureField = find<HTMLInputElement>('picture')
pictureField.addEventListener('change', async () => {
  const [file] = pictureField.files ?? []
  if (!file) return
  const base64 = await new Promise<string>((resolve) => {
    const reader = new FileReader()
    reader.onload = () => resolve(String(reader.result).split(',')[1] ?? '')
    reader.readAsDataURL(file)
  })
  pictureField.value = ''
  await write(words.value, { type: file.type, base64 })
})

field.addEventListener('input', showList)
find('write').addEventListener('submit', (event) => {
  event.preventDefault()
  void write(words.value)
})
for (const quick of document.querySelectorAll<HTMLButtonElement>('.quick'))
  quick.addEventListener('click', () => void write(quick.dataset.words!))
manner.addEventListener('change', () => void post('calls', { phone: chosen, act: 'manner', manner: manner.value }))
power.addEventListener('click', async () => {
  const on = phones.find(phone => phone.number === chosen)?.on !== false
  await post('power', { phone: chosen, on: !on })
  await load()
})
new EventSource('/handsets/api/live').onmessage = () => void load()
void load()
export {}
