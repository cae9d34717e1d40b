/** A place for files: dropped upon it, or chosen by its field. */
export const DropFiles = ({
  words,
  label,
  accept,
  several = false,
  disabled = false,
  sending = null,
  wrong = [],
  remarks = [],
  onFiles,
}: {
  /** What it says before the field. */
  words: string
  /** What the field is called. */
  label: string
  accept: string
  several?: boolean
  disabled?: boolean
  /** Name of the file that is on its way; meanwhile none is taken. */
  sending?: string | null
  wrong?: readonly string[]
  remarks?: readonly string[]
  onFiles: (files: readonly File[]) => void
}) => (
  <div
    onDragOver={(event) => event.dataTransfer.types.includes('Files') && event.preventDefault()}
    onDrop={(event) => {
      event.preventDefault()
      const files = [...event.dataTransfer.files]
      if (!disabled && sending === null && files.length > 0)
        onFiles(several ? files : files.slice(0, 1))
    }}
  >
    <label className="flex flex-wrap items-center gap-2 border border-dashed border-line-strong p-3 text-ink-2">
      {words}
      <input
        type="file"
        multiple={several}
        disabled={disabled || sending !== null}
        aria-label={label}
        accept={accept}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])]
          event.target.value = ''
          if (files.length > 0) onFiles(files)
        }}
      />
    </label>
    {sending !== null && (
      <p role="status" className="mt-1 text-ink-2">
        {sending} is being brought in …
      </p>
    )}
    <FileRemarks wrong={wrong} remarks={remarks} />
  </div>
)

/** What could not be taken, and what is worth knowing of what was. */
export const FileRemarks = ({
  wrong,
  remarks = [],
}: {
  wrong: readonly string[]
  remarks?: readonly string[]
}) => (
  <>
    {wrong.map((words) => (
      <p key={words} role="alert" className="mt-1 border-l-4 border-rust bg-rust-soft px-3 py-1">
        {words}
      </p>
    ))}
    {remarks.map((words) => (
      <p key={words} role="status" className="mt-1 border-l-4 border-slate bg-band px-3 py-1">
        {words}
      </p>
    ))}
  </>
)
