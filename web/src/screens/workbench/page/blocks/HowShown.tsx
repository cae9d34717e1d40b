import { hostOf, type Template } from '@wickerframe/core'

/** Whether what stands at an address is shown within the page, or only linked, and why. */
export const HowShown = ({ url, template }: { url: string; template: Template }) => {
  const host = hostOf(url)
  // There is always a line: fields below it do not move while somebody is on the way to them.
  return (
    <p className="text-[12.5px] text-ink-3">
      {url === ''
        ? 'Where it is: students come to it by a link, or see it within the page.'
        : host === null
          ? 'A link: only addresses that begin with https are shown within a page.'
          : template.frameHosts?.includes(host)
            ? `Shown within the page, with a link below it for where a platform cannot.`
            : `A link: ${host} is not among the hosts that may be shown within pages (see Course).`}
    </p>
  )
}
