import type { Message } from './routes/index.ts'

/** Where in the program a message leads. */
export const placeOfMessage = ({
  run,
  template,
  course,
}: Pick<Message, 'run' | 'template' | 'course'>): string =>
  course !== null
    ? `/courses/${course}`
    : template !== null
      ? `/templates/${template}`
      : `/rollouts/${run}`
