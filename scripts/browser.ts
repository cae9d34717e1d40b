import { existsSync } from 'node:fs'
import { chromium, type Browser } from 'playwright-core'
import { recorded } from './coverageRecords.ts'

const programs = ['chromium-headless-shell', 'chromium', 'chromium-browser']

/** Debian's Chromium, headless, with nothing that looks for the network. */
export const openBrowser = async (): Promise<Browser> =>
  recorded(
    await chromium.launch({
      executablePath: programs.map((name) => `/usr/bin/${name}`).find(existsSync) ?? 'chromium',
      args: [
        '--no-sandbox',
        '--disable-background-networking',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-component-update',
        '--disable-sync',
      ],
    }),
  )
