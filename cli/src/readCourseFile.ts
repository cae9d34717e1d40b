import { readCourse, type Course, type Result } from '@wickerframe/core'
import { z } from 'zod'
import type { Streams } from './command.ts'
import { readJsonFile } from './readJsonFile.ts'

/** Reads a course document of this version or the one before. @returns the course, or every problem in the file */
export const readCourseFile = async (
  path: string,
  streams: Pick<Streams, 'input'>,
): Promise<Result<Course>> => {
  const read = await readJsonFile(path, z.unknown(), streams)
  return read.ok ? readCourse(read.value) : read
}
