import { setResponseHeader } from 'h3'
import { papersAsText } from '~~/server/papers/as-text'
import { listFiles, mustEditPapers, readPapers } from '~~/server/papers/written'
import { route } from '~~/server/routing/route'

export default route({}, async ({ event, asker }) => {
  mustEditPapers(asker)
  setResponseHeader(event, 'content-type', 'text/plain; charset=utf-8')
  setResponseHeader(event, 'content-disposition', 'attachment; filename="papers.txt"')
  return papersAsText((await readPapers()).papers, await listFiles())
})
