/**
 * Kinds of files that may be put in and handed out: documents, tables, slides, pictures and recordings that hold nothing
 * that runs. Web pages, archives and programs are none of them, nor documents with macros. Media types as registered with
 * IANA, from memory.
 */
export const fileKinds = {
  pdf: { words: 'PDF', endings: ['pdf'], mediaType: 'application/pdf' },
  docx: {
    words: 'Word-processor document',
    endings: ['docx'],
    mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  },
  xlsx: {
    words: 'Spreadsheet',
    endings: ['xlsx'],
    mediaType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  },
  pptx: {
    words: 'Slides',
    endings: ['pptx'],
    mediaType: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
  },
  odt: {
    words: 'Word-processor document',
    endings: ['odt'],
    mediaType: 'application/vnd.oasis.opendocument.text',
  },
  ods: {
    words: 'Spreadsheet',
    endings: ['ods'],
    mediaType: 'application/vnd.oasis.opendocument.spreadsheet',
  },
  odp: {
    words: 'Slides',
    endings: ['odp'],
    mediaType: 'application/vnd.oasis.opendocument.presentation',
  },
  rtf: { words: 'Rich text', endings: ['rtf'], mediaType: 'application/rtf' },
  txt: { words: 'Plain text', endings: ['txt', 'md'], mediaType: 'text/plain; charset=utf-8' },
  csv: { words: 'Table', endings: ['csv'], mediaType: 'text/csv; charset=utf-8' },
  vtt: { words: 'Captions', endings: ['vtt'], mediaType: 'text/vtt; charset=utf-8' },
  png: { words: 'Picture', endings: ['png'], mediaType: 'image/png' },
  jpeg: { words: 'Picture', endings: ['jpg', 'jpeg'], mediaType: 'image/jpeg' },
  webp: { words: 'Picture', endings: ['webp'], mediaType: 'image/webp' },
  gif: { words: 'Picture', endings: ['gif'], mediaType: 'image/gif' },
  mp3: { words: 'Recording', endings: ['mp3'], mediaType: 'audio/mpeg' },
  m4a: { words: 'Recording', endings: ['m4a'], mediaType: 'audio/mp4' },
  mp4: { words: 'Film', endings: ['mp4'], mediaType: 'video/mp4' },
} as const satisfies Readonly<
  Record<string, { words: string; endings: readonly string[]; mediaType: string }>
>
export type FileKind = keyof typeof fileKinds

const kindOfEnding: ReadonlyMap<string, FileKind> = new Map(
  (Object.keys(fileKinds) as FileKind[]).flatMap((kind) =>
    fileKinds[kind].endings.map((ending) => [ending, kind] as const),
  ),
)

/** Every ending a file may have, in the order of their kinds. */
export const fileEndings: readonly string[] = [...kindOfEnding.keys()]

/** The kind that a file is called by its ending; null where it is none that may be put in. */
export const kindOfFileName = (name: string): FileKind | null =>
  kindOfEnding.get(/\.([^.]+)$/.exec(name)?.[1]?.toLowerCase() ?? '') ?? null

/** How large a file may be, in bytes. */
export const mostFileBytes = 25 * 2 ** 20

/** How many characters of text are read of a file at most; of a longer one, none are. */
export const mostReadWords = 200_000

/** A size as people read it: `340 kB`, `2.4 MB`. */
export const sizeInWords = (bytes: number): string =>
  bytes < 1024
    ? `${bytes} bytes`
    : bytes < 1_000_000
      ? `${Math.round(bytes / 1024)} kB`
      : `${(bytes / 2 ** 20).toFixed(1)} MB`
