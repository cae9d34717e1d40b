/**
 * JSON with keys in code-unit order and no white space, so that equal values give equal text
 * (the ordering rule of RFC 8785; numbers are written as ECMAScript writes them).
 */
export const canonicalJson = (value: unknown): string => {
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null'
  if (Array.isArray(value))
    return `[${value.map((item) => canonicalJson(item === undefined ? null : item)).join(',')}]`
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
    const unit = text.charCodeAt(i)
    for (let half = 0; half < 2; half++) {
      low = (low ^ (half === 0 ? unit & 0xff : unit >>> 8)) >>> 0
      // The prime is 2^40 + 0x1b3; the product of 32 bits by 9 is exact in a double, and its upper part is the carry.
      const carry = ((low * 0x1b3) / 0x100000000) | 0
      high = (Math.imul(high, 0x1b3) + carry + (low << 8)) | 0
      low = Math.imul(low, 0x1b3) >>> 0
    }
  }
  return (high >>> 0).toString(16).padStart(8, '0') + low.toString(16).padStart(8, '0')
}
