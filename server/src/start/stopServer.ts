import type { Server } from 'node:http'

/**
 * Stops a server so that nobody is cut off in the middle: nobody new is let in, what is being answered is answered to its end,
 * and what is not done by then is cut off.
 * @param seconds for what is being answered
 */
export const stopServer = async (server: Server, seconds: number): Promise<void> => {
  const closed = new Promise<void>((resolve) => server.close(() => resolve()))
  // A connection that was kept open for more is idle once it has its answer.
  const idle = setInterval(() => server.closeIdleConnections(), 50)
  const late = setTimeout(() => server.closeAllConnections(), seconds * 1000)
  await closed
  clearTimeout(late)
  clearInterval(idle)
}
