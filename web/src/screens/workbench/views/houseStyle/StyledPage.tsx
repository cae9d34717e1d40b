import { useMemo, useState } from 'react'
import {
  blockHtmlOn,
  blockInPlace,
  designedHtml,
  framesInWords,
  imageData,
  storedImage,
  styledHtml,
  type ExpectedCourse,
  type HouseStyle,
  type Template,
} from '@wickerframe/core'
import { useMe } from '../../../../api/queries.ts'
import { Pick } from '../../../../controls/controls.tsx'
import { useWorkedOut } from '../../useWorkedOut.ts'
import { specimen } from './specimen.ts'

/** Where a page is read: what of it the platform lets through, and on what ground it shows it. */
const readings = {
  light: { text: 'on a light platform', ground: '#ffffff', ink: '#222222', link: '#1a4f8f' },
  dark: { text: 'on a dark platform', ground: '#1c1f23', ink: '#e8e6e1', link: '#9cc4f2' },
  bare: { text: 'where styles are dropped', ground: '#ffffff', ink: '#222222', link: '#1a4f8f' },
} as const
type ReadOn = keyof typeof readings

const withoutStyles = (html: string): string => html.replace(/ style="[^"]*"/g, '')

/** The home page as it is in a course; as it is designed, where there is none. */
const homePage = (template: Template, expected: ExpectedCourse | null, today: string): string =>
  expected
    ? expected.home.blocks
        .map((block) => blockHtmlOn(block, today))
        .join('\n')
        .replace(/href="(?:ref|handout|house-file):[^"]*"/g, 'href="#"')
    : template.home.blocks
        .map((block) => {
          const placed = blockInPlace(block, template.keptBlocks)
          return (placed && designedHtml(placed, template)) ?? ''
        })
        .join('\n')

/** The home page and a page with everything on it, in a house style. Nothing in it can run: the frame has no rights at all. */
export const StyledPage = ({ template, style }: { template: Template; style: HouseStyle }) => {
  const { expected } = useWorkedOut(template, null)
  const today = useMe().data?.today ?? ''
  const [on, setOn] = useState<ReadOn>('light')
  const [narrow, setNarrow] = useState(false)
  const page = useMemo(() => {
    const images = new Map(
      template.assets.flatMap((asset) => {
        const data = imageData(asset)
        return [
          [storedImage(asset).name, data],
          [asset.fileName, data],
        ] as const
      }),
    )
    return framesInWords(
      `${homePage(template, expected, today)}\n${styledHtml(specimen, style)}`,
    ).replace(/src="asset:([\w.-]+)"/g, (whole, name: string) =>
      images.has(name) ? `src="${images.get(name)}"` : whole,
    )
  }, [template, expected, today, style])
  const { ground, ink, link } = readings[on]
  const document = `<!doctype html><meta name="viewport" content="width=device-width"><style>body{font:16px/1.6 sans-serif;color:${ink};background:${ground};margin:16px}a{color:${link}}img{max-width:100%}</style>${on === 'bare' ? withoutStyles(page) : page}`
  return (
    <section className="min-w-0 lg:sticky lg:top-2">
      <div className="mb-2 flex flex-wrap items-baseline gap-4">
        <h2 className="text-[18px]">As students will see it</h2>
        <Pick
          inline
          label="Read"
          value={on}
          onChange={(event) =>
            setOn(
              (['light', 'dark', 'bare'] as const).find((one) => one === event.target.value) ??
                'light',
            )
          }
          options={(['light', 'dark', 'bare'] as const).map((value) => ({
            value,
            text: readings[value].text,
          }))}
        />
        <Pick
          inline
          label="at"
          value={narrow ? 'narrow' : 'wide'}
          onChange={(event) => setNarrow(event.target.value === 'narrow')}
          options={[
            { value: 'wide', text: 'the width of a screen' },
            { value: 'narrow', text: 'the width of a phone' },
          ]}
        />
      </div>
      <iframe
        title={`Pages in the house style, ${readings[on].text}`}
        sandbox=""
        srcDoc={document}
        className={`h-[max(24rem,calc(100vh-8rem))] border border-line ${narrow ? 'w-[23rem]' : 'w-full'}`}
      />
    </section>
  )
}
