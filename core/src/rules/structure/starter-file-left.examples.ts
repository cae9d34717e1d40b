import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the syllabus is the real one', change: () => {} },
    {
      title: 'the blank form stands among the staff pages',
      change: ({ item }) =>
        void (item('staff-notes').html += '<a href="/files/syllabus-template.docx">Form</a>'),
    },
  ],
  fails: [
    {
      title: 'the form is linked as the syllabus',
      change: ({ item }) =>
        void (item('syllabus').html =
          '<p><a href="/courses/example/files/Syllabus_template.docx">Syllabus</a></p>'),
      evidence: 'Syllabus_template.docx',
    },
    {
      title: 'the form stands in a module',
      change: ({ module, item }) =>
        void module('casting-off').children.push({
          ...item('welcome'),
          id: 'own',
          kind: 'file',
          html: null,
          name: 'Course outline (blank)',
          recordedAs: undefined,
        }),
      evidence: 'Course outline (blank)',
    },
  ],
}
