export { askedInCourse, AskedPiece, AskedThing, AskingPage } from './askedInCourse.ts'
export { Answer, fillIn, type FilledIn } from './fillIn.ts'
export { ownWords } from './ownWords.ts'
export { linesAsHtml } from './writePieces.ts'
