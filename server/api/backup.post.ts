import { makeCopy } from '~~/server/backup/offer'
import { openRoute } from '~~/server/routing/route'
import { backupForm } from '~~/shared/schemas/backup'

/** For `bin/backup`, which has the key from the data folder. */
export default openRoute({ body: backupForm, uncounted: true }, ({ body, now }) => makeCopy(body.key, now))
