/**
 * JSON with keys in code-unit order and no white space, so that equal values give equal text
 * (the ordering rule of RFC 8785; numbers are written as ECMAScript writes them).
 */
export const canonicalJson = (value: unknown): string => {
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null'
  if (Array.isArray(value)) return `[${value.map((item) => canonicalJson(item === undefined ? null : item)).join(',')}]`
  const record = value as Record<string, unknown>
  const members = Object.keys(record)
    .filter((key) => record[key] !== undefined)
    .sort()
    .map((key) => `${JSON.stringify(key)}:${canonicalJson(record[key])}`)
  return `{${members.join(',')}}`
}

/**
 * 64-bit FNV-1a as 16 hexadecimal digits, for short stable keys (fingerprints, minted ids).
 * Not for security. Constants: Fowler, Noll, Vo, RFC 9923.
 */
export const shortHash = (text: string): string => {
  let low = 0x84222325
  let high = 0xcbf29ce4
  for (let i = 0; i < text.length; i++) {
    low ^= text.charCodeAt(i) & 0xff
    ;[high, low] = timesPrime(high, low)
    low ^= text.charCodeAt(i) >>> 8
    ;[high, low] = timesPrime(high, low)
  }
  return (high >>> 0).toString(16).padStart(8, '0') + (low >>> 0).toString(16).padStart(8, '0')
}

/** (high, low) × 0x100000001b3 modulo 2^64, in 32-bit halves. */
const timesPrime = (high: number, low: number): [number, number] => {
  const lowProduct = (low >>> 0) * 0x1b3
  const carry = Math.floor(lowProduct / 0x100000000)
  const nextHigh = (Math.imul(high, 0x1b3) + carry + (low << 8)) | 0
  return [nextHigh, lowProduct | 0]
}
