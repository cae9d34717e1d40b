import { serveFiles } from './files/fileThread.ts'

// The program of a thread that reads files: small, so that it is there in no time.
serveFiles()
