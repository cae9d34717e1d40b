import type { ExampleCourse, RuleExamples } from '../rule.ts'

/** The page of a week shows a film, in a college that allows one host. */
const shows =
  (week: number, source: string) =>
  ({ item, template }: ExampleCourse): void => {
    template.frameHosts = ['film.kestrelsound.example']
    item('week-overview', week).html += `<iframe src="${source}" title="Mooring"></iframe>`
  }

export const examples: RuleExamples = {
  passes: [
    {
      title: 'a film of a host that is allowed',
      change: shows(3, 'https://film.kestrelsound.example/watch/7'),
    },
    { title: 'something of the platform’s own', change: shows(3, '/files/mooring.html') },
  ],
  fails: [
    {
      title: 'a film of another host',
      change: shows(3, 'https://films.example/embed/7'),
      evidence: 'https://films.example/embed/7',
    },
    {
      title: 'an address without a scheme',
      change: shows(2, '//films.example/embed/8'),
      evidence: '//films.example/embed/8',
    },
    {
      title: 'an allowed host without TLS',
      change: shows(2, 'http://film.kestrelsound.example/9'),
      evidence: 'http://film.kestrelsound.example/9',
    },
  ],
}
