/** Pages that no person writes: each must be read, or refused with a reason, in bounded time. */
export const hostile: Readonly<Record<string, string>> = {
  'a megabyte of nested tags': '<div>'.repeat(200_000),
  'nested formatting': '<b><i>'.repeat(150_000),
  'nested lists and tables': '<table><tr><td><ul><li>'.repeat(40_000),
  'a hundred thousand links': '<a href="/x">y</a>'.repeat(100_000),
  'broken encodings': `\uD800\uDC00\uFFFE${'\u0000\uFFFD\uDFFF'.repeat(50_000)}<p>${'\u202E'.repeat(10_000)}`,
  script: `<script>${'while(1);'.repeat(50_000)}</script><p onclick="x()">Text</p><svg onload=x()>`,
  'an attribute of a million characters': `<p title="${'x'.repeat(1_000_000)}" style="${'color:red;'.repeat(100_000)}">Text</p>`,
  'three million characters': 'word '.repeat(600_000),
  'a million quotation marks': `<a href=${'"'.repeat(300_000)}>`,
  'unfinished comments': '<!--'.repeat(200_000),
}
