import { previewRound } from '~~/server/calling/rounds/make'
import { route } from '~~/server/routing/route'
import { roundSelectionForm } from '~~/shared/schemas/round'

export default route({ body: roundSelectionForm }, ({ asker, body, now }) => previewRound(asker, body, now))
