export * from './readPasted.ts'
