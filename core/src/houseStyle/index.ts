export * from './colourPairs.ts'
export * from './houseStyle.ts'
export * from './styledHtml.ts'
export { besideStyle, type HouseRole } from './styleSheet.ts'
