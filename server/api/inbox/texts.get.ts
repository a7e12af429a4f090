import { route } from '~~/server/routing/route'
import { readTexts } from '~~/server/timeline/texts'
import { inboxTextsQuery } from '~~/shared/schemas/inbox'

export default route({ query: inboxTextsQuery }, ({ asker, query }) => readTexts(asker, query))
