import type { Papers } from '~~/core/papers/papers'

/** As they are brought to a carrier that takes them by hand: plain text, to be copied into whatever form it has. */
export function papersAsText(papers: Papers, files: { name: string }[]): string {
  const lines: [string, string][] = [
    ['Company', papers.firm], ['Known as', papers.brand], ['Registration number', papers.number], ['Address', papers.address], ['Country', papers.country],
    ['Website', papers.website], ['Contact', papers.contact], ['Mail', papers.mail], ['Telephone', papers.phone],
    ['What is texted, to whom and why', papers.about], ['How people agree, and how they end it', papers.agree],
    ...papers.samples.map((sample, i): [string, string] => [`Sample text ${i + 1}`, sample]),
    ['Files', files.map(({ name }) => name).join(', ')],
  ]
  return lines.filter(([, value]) => value !== '').map(([name, value]) => `${name}\n${value}\n`).join('\n')
}
