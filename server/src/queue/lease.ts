/**
 * Renews a lease three times in its length, as long as it is not let go.
 * @param renew gives false when somebody else holds it by now; a failure is tried again
 * @returns `lost`: aborted once somebody else holds it, or a whole lease went by without a renewal
 */
export const keepLease = (
  leaseSeconds: number,
  renew: () => Promise<boolean>,
): { lost: AbortSignal; letGo: () => void } => {
  const losing = new AbortController()
  let renewedAt = performance.now()
  const beat = async () => {
    const held = await renew().catch(() => null)
    if (held === true) renewedAt = performance.now()
    if (held === false || performance.now() - renewedAt >= leaseSeconds * 1000) losing.abort()
  }
  const heartbeat = setInterval(() => void beat(), (leaseSeconds * 1000) / 3)
  return { lost: losing.signal, letGo: () => clearInterval(heartbeat) }
}
