export * from './block.ts'
export * from './courseSettingWords.ts'
export * from './edit.ts'
export * from './file.ts'
export * from './filesOfItem.ts'
export * from './freshKey.ts'
export * from './grading.ts'
export * from './image.ts'
export {
  imageKindOf,
  imageKinds,
  mediaTypeOf,
  type ImageBytes,
  type ImageKind,
} from './imageBytes.ts'
export { cutAroundMiddle, ImageSet, sizeMisfit, type SizeMisfit } from './imageSet.ts'
export { aspectOf, imageSizeOf, type ImageSize } from './imageSize.ts'
export * from './made.ts'
export * from './misfits.ts'
export * from './navigation.ts'
export * from './outcomes.ts'
export * from './part.ts'
export * from './partWords.ts'
export * from './question.ts'
export * from './clip.ts'
export * from './template.ts'
export * from './words.ts'
export * from './kindWords.ts'
