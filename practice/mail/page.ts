import { LinkifyIt } from 'linkify-it'
import type { DroppedMail } from './drop'

const links = new LinkifyIt()

const escaped = (text: string) => text.replaceAll(/[&<>"']/g, sign => `&#${sign.codePointAt(0)};`)

/** The words of a mail, with the links in it to be followed; nothing of it is taken for anything else. */
function wordsOf(text: string): string {
  let at = 0
  const found: { index: number, lastIndex: number, url: string, raw: string }[] = links.match(text) ?? []
  const parts = found.filter(({ url }) => /^https?:/.test(url)).map(({ index, lastIndex, url, raw }) => {
    const before = text.slice(at, index)
    at = lastIndex
    return `${escaped(before)}<a href="${escaped(url)}">${escaped(raw)}</a>`
  })
  return parts.join('') + escaped(text.slice(at))
}

const mail = ({ at, from, to, subject, text }: DroppedMail) => `
    <article class="mail">
      <h2><bdi>${escaped(subject) || 'No subject'}</bdi></h2>
      <p class="small">from ${escaped(from)} to ${escaped(to.join(', '))}, <time>${new Date(at).toISOString().slice(0, 19).replace('T', ' ')} UTC</time></p>
      <pre dir="auto">${wordsOf(text.trim())}</pre>
    </article>`

/** What was mailed, the newest first. */
export const mailPage = (mails: readonly DroppedMail[]): string => `<!doctype html>
<html lang="en">
<head>
  <meta charset="utf-8">
  <meta name="viewport" content="width=device-width, initial-scale=1">
  <title>Mail drop, the practice world of Plauder</title>
  <link rel="icon" href="data:,">
  <link rel="stylesheet" href="/handsets/page.css">
  <script src="/mail/page.js" defer></script>
</head>
<body>
  <header>
    <h1>Mail drop</h1>
    <p>The practice world: every mail that Plauder sends ends here, and goes to nobody. <a href="/handsets">Handsets</a></p>
  </header>
  <main class="mails">
    <p id="new" role="status" hidden>A mail has come. <a href="/mail">Show it</a></p>${mails.length > 0
      ? mails.map(mail).join('')
      : `
    <p>No mail has come yet.</p>`}
  </main>
</body>
</html>
`
