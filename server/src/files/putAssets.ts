import { refusedInDrawing, storedImage, type Asset } from '@wickerframe/core'
import type { Connector } from '../connector/client.ts'
import { unanswered } from '../connector/unanswered.ts'
import { failed, type TaskOutcome } from '../queue/outcome.ts'
import { heldThere } from './heldThere.ts'

/**
 * Puts images on the platform; unless they were there a moment ago.
 * @returns null, or how a task ends that cannot go on without them
 */
export const putAssets = async (
  connector: Pick<Connector, 'putAsset'>,
  assets: readonly Asset[],
): Promise<TaskOutcome | null> => {
  for (const asset of assets) {
    const { name } = storedImage(asset)
    if (heldThere.has(name)) continue
    const refused = refusedInDrawing(asset.svg ?? '')
    if (refused.length > 0)
      return failed(
        `the drawing ${asset.fileName} is not sent: it holds ${refused.join(', ')}; put it in again without`,
      )
    const bytes =
      asset.base64 === undefined
        ? Buffer.from(asset.svg ?? '', 'utf8')
        : Buffer.from(asset.base64, 'base64')
    const put = await connector.putAsset(name, bytes)
    if (put.state === 'refused')
      return failed(`the platform refused the image ${asset.fileName}: ${put.detail}`)
    if (put.state !== 'answered') return unanswered(put)
    heldThere.add(name)
  }
  return null
}
