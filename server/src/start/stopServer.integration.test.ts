import { createServer, type Server } from 'node:http'
import { describe, expect, it } from 'vitest'
import { stopServer } from './stopServer.ts'

/** A server whose answers end when they are told to. */
const slow = async (): Promise<{
  server: Server
  address: string
  begun: Promise<void>
  end: () => void
}> => {
  let end = (): void => undefined
  let tellBegun = (): void => undefined
  const begun = new Promise<void>((resolve) => (tellBegun = resolve))
  const server = createServer((_, response) => {
    response.writeHead(200)
    response.write('first half, ')
    end = () => void response.end('second half')
    tellBegun()
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const bound = server.address()
  return {
    server,
    address: `http://127.0.0.1:${typeof bound === 'object' && bound ? bound.port : 0}`,
    begun,
    end: () => end(),
  }
}

describe('a server that is stopped', () => {
  it('answers to its end what it is answering, and lets nobody new in', async () => {
    const { server, address, begun, end } = await slow()
    const asked = fetch(address).then((answer) => answer.text())
    await begun
    const stopped = stopServer(server, 20)
    await expect(fetch(address)).rejects.toThrow()
    end()
    expect(await asked).toBe('first half, second half')
    await stopped
  })
  it('cuts off what does not end', async () => {
    const { server, address, begun } = await slow()
    const asked = fetch(address).then((answer) => answer.text())
    const failed = expect(asked).rejects.toThrow()
    await begun
    await stopServer(server, 0.1)
    await failed
  })
  it('with nobody there ends at once, also where a connection is kept open', async () => {
    const { server, address, end, begun } = await slow()
    const asked = fetch(address, { keepalive: true }).then((answer) => answer.text())
    await begun
    end()
    await asked
    const began = performance.now()
    await stopServer(server, 20)
    expect(performance.now() - began).toBeLessThan(5000)
  })
})
