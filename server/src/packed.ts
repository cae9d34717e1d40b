import { deflateRawSync, inflateRawSync } from 'node:zlib'

/** JSON packed for a column of bytes: documents of ours repeat themselves, and a tenth of the bytes is written. */
export const pack = (value: unknown): Buffer => packText(JSON.stringify(value))
export const packText = (text: string): Buffer => deflateRawSync(text, { level: 1 })
export const unpackText = (bytes: Buffer): string => inflateRawSync(bytes).toString('utf8')
export const unpack = (bytes: Buffer): unknown => JSON.parse(unpackText(bytes)) as unknown
