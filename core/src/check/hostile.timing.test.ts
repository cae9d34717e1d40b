import { describe, expect, it } from 'vitest'
import { analysePage } from '../page/index.ts'
import { processorMilliseconds } from '../testing/processorTime.testing.ts'
import { hostile } from './hostile.testing.ts'

describe('hostile pages', () => {
  it.each(Object.entries(hostile))('%s: read or refused within two seconds', (_, html) => {
    let page: ReturnType<typeof analysePage> | null = null
    const work = () => {
      page = analysePage(html)
    }
    expect(processorMilliseconds(work)).toBeLessThan(2000)
    expect(page).not.toBeNull()
  })
})
