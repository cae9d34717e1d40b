import type { TemplateDraft } from '@wickerframe/contract'
import type { Remark } from '@wickerframe/core'

export type View =
  | 'outline'
  | 'settings'
  | 'style'
  | 'grading'
  | 'outcomes'
  | 'shared'
  | 'layer'
  | 'proofreading'
  | 'comments'
  | 'versions'

/** The views of a template and what they are called, in their order. @param remarks null while it is being proofread */
export const workbenchViews = (
  { above, openComments }: TemplateDraft,
  remarks: readonly Remark[] | null,
): readonly (readonly [View, string])[] => [
  ['outline', 'Outline'],
  ['settings', 'Course'],
  ['style', 'House style'],
  ['grading', 'Grades and rubrics'],
  ['outcomes', 'Outcomes'],
  ['shared', 'Shared pieces'],
  ...(above
    ? [
        [
          'layer',
          above.newest > above.version
            ? `Layer above (version ${above.newest} is out)`
            : 'Layer above',
        ] as const,
      ]
    : []),
  ['proofreading', remarks === null ? 'Proofreading' : `Proofreading (${remarks.length})`],
  ['comments', `Comments (${openComments})`],
  ['versions', 'Versions'],
]
