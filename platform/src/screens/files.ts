import type { Course, CourseItem } from '@wickerframe/core'
import { fileAddress } from '../files.ts'
import { button, escape } from './layout.ts'

const upload = (action: string, words: string, label: string): string =>
  `<form class="block" method="post" enctype="multipart/form-data" action="${escape(action)}"><label>${escape(label)} <input name="file" type="file" required></label> <button>${words}</button></form>`

/** The file of an item, and where whoever teaches the course puts in another. */
export const fileOf = (course: Course, item: CourseItem): string => {
  if (item.kind !== 'file') return ''
  const base = `/courses/${course.id}/items/${item.id}`
  return `<h2>File</h2>
  ${item.file ? `<p><a href="${escape(fileAddress(course.id, item.file))}">${escape(item.file.name)}</a> ${button(`${base}/remove-file`, 'take the file out')}</p>` : '<p class="words">It shows no file yet.</p>'}
  ${upload(`${base}/put-file`, 'put it in', item.file ? 'Put another in its place' : 'Put one in')}`
}

/** Files that the course holds beside those its items show: students see them, or not. */
export const filesHeld = (course: Course): string => {
  const base = `/courses/${course.id}`
  return `<h2 id="files">Files of the course</h2>
  ${(course.files ?? []).length === 0 ? '<p class="words">It holds none beside those its items show.</p>' : ''}
  <ul>${(course.files ?? [])
    .map(
      ({ id, name, url, restricted }) =>
        `<li><a href="${escape(url)}">${escape(name)}</a> <span class="words">${restricted ? 'kept from students' : 'students can reach it'}</span> ${button(`${base}/files/${id}/${restricted ? 'show' : 'keep'}`, restricted ? 'let students have it' : 'keep it from students')}${button(`${base}/files/${id}/remove`, 'take it out')}</li>`,
    )
    .join('')}</ul>
  ${upload(`${base}/put-file`, 'put it in', 'Put a file into the course')}`
}
