// core/src/document/line.ts
import { z } from "zod";
var isLine = (text) => !/[\p{Cc}\u2028\u2029]/u.test(text);
var Line = (most, least = 1) => z.string().min(least).max(most).refine(isLine, "one line of text, without line ends and control characters");

// core/src/document/address.ts
import { z as z2 } from "zod";
var overlooked = /[\p{Cc}\p{Cf}\p{Z}]/gu;
var schemes = /* @__PURE__ */ new Set(["https", "http", "mailto", "tel"]);
var inside = /* @__PURE__ */ new Set(["ref", "item", "part", "asset", "house-text"]);
var addressOf = (address) => {
  const bare = address.replace(overlooked, "");
  const scheme = /^([^/?#:]*):/.exec(bare)?.[1]?.toLowerCase();
  return scheme === void 0 || schemes.has(scheme) || inside.has(scheme) ? address : null;
};
var Address = z2.string().max(2e3).refine(
  (address) => addressOf(address) !== null,
  "an address that begins with https, http, mailto or tel, or one inside the course"
);

// core/src/document/result.ts
import { z as z3 } from "zod";
var Problem = z3.strictObject({
  /** Stable code of the kind of mistake, e.g. `unknown-field`. */
  code: z3.string(),
  /** JSON Pointer (RFC 6901) from the root of the document. */
  path: z3.string(),
  /** What stands there, shortened to 80 characters. */
  found: z3.string(),
  /** What was wanted, and where known what to do. */
  expected: z3.string()
});
var success = (value) => ({ ok: true, value });
var failure = (problems) => ({ ok: false, problems });

// core/src/document/readDocument.ts
var longestShown = 80;
var mostTold = 200;
var quoteValue = (value) => {
  const text = value === void 0 ? "nothing" : JSON.stringify(value) ?? String(value);
  return text.length > longestShown ? `${text.slice(0, longestShown - 1)}\u2026` : text;
};
var jsonPointer = (path) => path.map((step) => `/${String(step).replaceAll("~", "~0").replaceAll("/", "~1")}`).join("");
var valueAt = (root, path) => path.reduce(
  (at, step) => at !== null && typeof at === "object" ? at[step] : void 0,
  root
);
var problemsOfIssue = (root, issue, prefix) => {
  const path = [...prefix, ...issue.path];
  const at = jsonPointer(path);
  const found = quoteValue(valueAt(root, path));
  switch (issue.code) {
    case "unrecognized_keys":
      return issue.keys.map((key) => ({
        code: "unknown-field",
        path: jsonPointer([...path, key]),
        found: quoteValue(valueAt(root, [...path, key])),
        expected: "no such field here: remove it or correct its name"
      }));
    case "invalid_type":
      return [
        {
          code: found === "nothing" ? "missing" : "wrong-type",
          path: at,
          found,
          expected: `a value of type ${issue.expected}`
        }
      ];
    case "invalid_value":
      return [
        {
          code: "not-allowed",
          path: at,
          found,
          expected: `one of ${issue.values.map(quoteValue).join(", ")}`
        }
      ];
    case "too_small":
      return [
        {
          code: "too-small",
          path: at,
          found,
          expected: `${issue.origin} of at least ${issue.minimum}`
        }
      ];
    case "too_big":
      return [
        {
          code: "too-big",
          path: at,
          found,
          expected: `${issue.origin} of at most ${issue.maximum}`
        }
      ];
    case "invalid_union": {
      const closest = [...issue.errors].sort((a, b) => a.length - b.length)[0];
      if (closest && closest.length > 0)
        return closest.flatMap((inner) => problemsOfIssue(root, inner, path));
      return [{ code: "not-allowed", path: at, found, expected: issue.message }];
    }
    default:
      return [{ code: "not-valid", path: at, found, expected: issue.message }];
  }
};
var readDocument = (schema, json) => {
  const read2 = schema.safeParse(json);
  if (read2.success) return success(read2.data);
  return failure(
    read2.error.issues.slice(0, mostTold).flatMap((issue) => problemsOfIssue(json, issue, []))
  );
};

// core/src/document/schemasOf.ts
var schemasOf = (kinds2) => kinds2.map(({ schema }) => schema);

// core/src/document/jsonValue.ts
import { z as z4 } from "zod";
var JsonValue = z4.json();

// core/src/remember/remember.ts
var longestKey = 1e4;
var remember = (most, work) => {
  const known2 = /* @__PURE__ */ new Map();
  return (key) => {
    const before = known2.get(key);
    if (before !== void 0) return before;
    const value = work(key);
    if (typeof key === "string" && key.length > longestKey) return value;
    if (known2.size >= most) known2.clear();
    known2.set(key, value);
    return value;
  };
};

// core/src/template/block.ts
import { z as z32 } from "zod";

// core/src/template/block/kinds/assignment-brief.ts
import { z as z12 } from "zod";

// core/src/template/words.ts
import { z as z10 } from "zod";

// core/src/naming/fields.ts
import { z as z5 } from "zod";
var fields = {
  code: { type: "code", of: "course", title: "course code" },
  title: { type: "text", of: "course", title: "course title" },
  term: { type: "term", of: "course", title: "term" },
  year: { type: "integer", of: "course", title: "year of the term's first day" },
  classSection: { type: "text", of: "course", title: "class sections" },
  instructor: { type: "text", of: "course", title: "instructor", prompt: "instructor" },
  modality: { type: "text", of: "course", title: "modality" },
  room: { type: "text", of: "course", title: "room", prompt: "room" },
  number: { type: "integer", of: "module", title: "number among its kind" },
  week: { type: "integer", of: "module", title: "week number" },
  half: {
    type: "letter",
    of: "module",
    title: "half of the week, A or B, in a class that meets twice"
  },
  unit: { type: "integer", of: "module", title: "unit number" },
  weeks: { type: "span", of: "module", title: "first to last week of a unit" },
  day: { type: "integer", of: "module", title: "number of the class day" },
  dates: { type: "range", of: "module", title: "first to last day", style: "MMM d \u2013 MMM d" },
  start: { type: "date", of: "module", title: "first day", style: "MMM d" },
  end: { type: "date", of: "module", title: "last day", style: "MMM d" },
  topic: { type: "text", of: "module", title: "topic", prompt: "topic", own: true },
  kind: { type: "choice", of: "item", title: "kind of item", prompt: "kind" },
  minutes: { type: "integer", of: "item", title: "length in minutes", prompt: "minutes" },
  points: { type: "integer", of: "item", title: "points" },
  due: { type: "date", of: "item", title: "due date", style: "MMM d" }
};
var isFieldName = (name) => Object.hasOwn(fields, name);
var definitionOf = (name) => fields[name];
var fieldNames = Object.keys(fields);
var DaySpan = z5.strictObject({ first: z5.string(), last: z5.string() });
var NumberSpan = z5.strictObject({ from: z5.number(), to: z5.number() });
var FieldValue = z5.union([z5.string(), z5.number(), DaySpan, NumberSpan]);
var FieldValues = z5.partialRecord(z5.enum(fieldNames), FieldValue);

// core/src/calendar/plainDate.ts
import { z as z6 } from "zod";
var millisecondsPerDay = 864e5;
var mostDays = 2e4;
var dayNumber = remember(
  mostDays,
  (date) => Math.round(
    Date.UTC(Number(date.slice(0, 4)), Number(date.slice(5, 7)) - 1, Number(date.slice(8, 10))) / millisecondsPerDay
  )
);
var dateOfDayNumber = remember(
  mostDays,
  (day) => new Date(day * millisecondsPerDay).toISOString().slice(0, 10)
);
var weekdays = [
  "monday",
  "tuesday",
  "wednesday",
  "thursday",
  "friday",
  "saturday",
  "sunday"
];
var isPlainDate = remember(
  mostDays,
  (text) => /^\d{4}-\d{2}-\d{2}$/.test(text) && dateOfDayNumber(dayNumber(text)) === text
);
var PlainDate = z6.string().regex(/^\d{4}-\d{2}-\d{2}$/, "a date written YYYY-MM-DD").refine(isPlainDate, "a date that exists, written YYYY-MM-DD").describe("A calendar date, YYYY-MM-DD, read in the time zone of the term");

// core/src/calendar/term.ts
import { z as z8 } from "zod";

// core/src/calendar/timeZone.ts
import { IANAZone } from "luxon";
import { z as z7 } from "zod";
var TimeZone = z7.string().refine((zone2) => IANAZone.isValidZone(zone2), "an IANA time zone such as America/Halifax");

// core/src/calendar/term.ts
var Name = Line(200);
var DateRange = z8.strictObject({ name: Name, first: PlainDate, last: PlainDate }).refine((range) => range.first <= range.last, "a first day that is not after the last day");
var Session = z8.strictObject({ code: Line(60), title: Name, firstDay: PlainDate, lastDay: PlainDate }).refine((session) => session.firstDay <= session.lastDay, "a firstDay that is not after lastDay");
var Term = z8.strictObject({
  code: Line(60).describe("Stable short code, e.g. autumn-2026"),
  title: Name,
  timeZone: TimeZone.describe("IANA time zone; every date of the term is read in it"),
  firstDay: PlainDate.describe("Opening day"),
  lastDay: PlainDate.describe("Last day of class"),
  weekStartsOn: z8.enum(weekdays).default("monday"),
  breaks: z8.array(DateRange).default([]).describe("Stretches without class"),
  breakWeeksCount: z8.boolean().default(true).describe("Whether a week wholly in a break has a number of its own"),
  preparatoryWeek: z8.boolean().default(false).describe("Whether a week 0 stands before the first week, to prepare in"),
  shortFirstWeek: z8.enum(["counts", "joins-next", "is-week-0"]).default("counts"),
  shortLastWeek: z8.enum(["counts", "joins-previous"]).default("counts"),
  holidays: z8.array(z8.strictObject({ name: Name, date: PlainDate })).default([]),
  otherDates: z8.array(z8.strictObject({ name: Name, date: PlainDate })).default([]),
  sessions: z8.array(Session).default([]).describe("Shorter stretches inside the term, for courses of fewer weeks")
}).refine((term) => term.firstDay <= term.lastDay, {
  message: "a firstDay that is not after lastDay",
  path: ["firstDay"]
}).refine(
  (term) => new Date(term.lastDay).getTime() - new Date(term.firstDay).getTime() < 400 * 864e5,
  { message: "a term of at most 400 days", path: ["lastDay"] }
);
var FreeDays = z8.strictObject({
  holidays: Term.shape["holidays"],
  breaks: Term.shape["breaks"],
  /** Events that are no whole days, or lie outside the stretch: left out, and counted. */
  leftOut: z8.number()
});

// core/src/calendar/dateWords.ts
var monthWords = [
  "jan january janv janvier ene enero",
  "feb february febr fev fevr fevrier febrero",
  "mar march mars marzo",
  "apr april avr avril abr abril",
  "may mai mayo",
  "jun june juin junio",
  "jul july juil juill juillet julio",
  "aug august aout ago agosto",
  "sep sept september septembre septiembre setiembre",
  "oct october octobre octubre",
  "nov november novembre noviembre",
  "dec december decembre dic diciembre"
];
var weekdayWords = [
  "mon monday lun lundi lunes",
  "tue tues tuesday mardi martes",
  "wed weds wednesday mer mercredi mie miercoles",
  "thu thur thurs thursday jeu jeudi jue jueves",
  "fri friday ven vendredi vie viernes",
  "sat saturday sam samedi sab sabado",
  "sun sunday dim dimanche dom domingo"
];
var numbered = (lists) => new Map(lists.flatMap((words, i) => words.split(" ").map((word) => [word, i + 1])));
var months = numbered(monthWords);
var days = numbered(weekdayWords);
var everyMonthWord = [...months.keys()].sort(
  (a, b) => b.length - a.length
);

// core/src/calendar/dateText.ts
var letterRun = /yyyy|yy|MMMM|MMM|MM|M|dd|d|EEEE|EEE/g;
var isDateStyle = (style) => /[yMdE]/.test(style) && !/[A-Za-z]/.test(style.replace(/ to (?=[yMdE])/, " ").replace(letterRun, ""));
var monthWord = `(?:${everyMonthWord.join("|")})`;
var suffix = "(?:st|nd|rd|th|er|a|o)?";
var mention = new RegExp(
  `\\b(?:(${monthWord})\\.? (\\d{1,2})${suffix}|(\\d{1,2})${suffix} (?:of |de )?(${monthWord})\\b\\.?)(?!\\w)(?:,?(?: de)? (\\d{4})\\b)?|\\b(\\d{4})-(\\d{2})-(\\d{2})\\b`,
  "g"
);

// core/src/calendar/offset.ts
import { z as z9 } from "zod";
var Offset = z9.strictObject({
  from: z9.enum(["week-start", "week-end", "class-day", "term-start", "term-end", "named-date"]).describe("What the days are counted from"),
  week: z9.number().int().min(0).max(60).optional().describe("A week's number; without it, the part's own week"),
  classDay: z9.number().int().min(1).max(7).optional().describe("Which class day of the week, for from: class-day; the first without it"),
  name: z9.string().min(1).max(200).optional().describe("Name of one of the term's other dates, for from: named-date"),
  days: z9.number().int().min(-366).max(366).default(0),
  time: z9.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, "a time written HH:MM, 00:00 to 23:59").default("00:00")
}).refine((offset) => offset.from !== "named-date" || offset.name !== void 0, {
  message: "name, when from is named-date",
  path: ["name"]
}).describe("Day 1 of a week is its week-start with days 0");

// core/src/naming/words/likeness.ts
var editDistance = (a, b, most = Math.max(a.length, b.length)) => {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let before = [];
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    let least = i;
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1];
      let cost = Math.min(
        (next[j - 1] ?? 0) + 1,
        (row[j] ?? 0) + 1,
        (row[j - 1] ?? 0) + (same ? 0 : 1)
      );
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, (before[j - 2] ?? 0) + 1);
      next.push(cost);
      if (cost < least) least = cost;
    }
    if (least > most) return most + 1;
    before = row;
    row = next;
  }
  return Math.min(row[b.length] ?? 0, most + 1);
};

// core/src/naming/format.ts
var longestFormat = 500;
var mostFields = 64;
var nearestWord = (word, known2) => {
  const lower = word.toLowerCase().slice(0, 40);
  const ranked = known2.map((word2) => ({ one: word2, cost: editDistance(lower, word2.toLowerCase()) })).sort((a, b) => a.cost - b.cost);
  const best = ranked[0];
  return best && best.cost <= Math.max(1, Math.floor(word.length / 2)) ? best.one : null;
};
var styleProblem = (field, style) => {
  const { type } = definitionOf(field);
  if (type === "letter" || type === "span") return "left out: it has none";
  if (type === "integer")
    return /^0{1,4}$/.test(style) ? null : "zeros, as many as digits are wanted, e.g. 00";
  if (type === "date" || type === "range")
    return isDateStyle(style) ? null : "date letters such as MMM d (yyyy, MM, MMM, d, EEE)";
  if (type === "choice")
    return style.includes("|") ? null : "the choices with a bar between them, e.g. Lab|Reading";
  return /^\d+-\d+ words$/.test(style) ? null : "a bound such as 2-8 words";
};
var parseFormat = (source) => {
  const problems = [];
  const complain = (code, at2, message, suggestion = null) => {
    problems.push({ code, at: at2, message, suggestion });
  };
  if (source.length > longestFormat) {
    complain(
      "too-long",
      longestFormat,
      `a naming format has at most ${longestFormat} characters; this one has ${source.length}`
    );
    return failure(problems);
  }
  if (source.trim() === "") {
    complain(
      "empty",
      0,
      "a naming format cannot be empty",
      "write the name as it should read, e.g. Week {week}"
    );
    return failure(problems);
  }
  const root = [];
  let open = null;
  let text = "";
  let count = 0;
  const into = () => open?.nodes ?? root;
  const flush = () => {
    if (text !== "") into().push({ node: "text", text });
    text = "";
  };
  let at = 0;
  while (at < source.length) {
    const two = source.slice(at, at + 2);
    if (source[at] === "\\" && at + 1 < source.length) {
      text += source[at + 1];
      at += 2;
    } else if (two === "{{" || two === "}}") {
      text += two[0];
      at += 2;
    } else if (two === "{?") {
      flush();
      if (open) complain("nested-optional", at, "an optional stretch cannot stand inside another");
      else open = { nodes: [], at };
      at += 2;
    } else if (two === "?}") {
      flush();
      if (open) {
        root.push({ node: "optional", nodes: open.nodes });
        open = null;
      } else
        complain(
          "stray-brace",
          at,
          "an optional stretch ends here that did not begin",
          "write {? before it, or ?}} for the characters"
        );
      at += 2;
    } else if (source[at] === "}") {
      complain(
        "stray-brace",
        at,
        "a closing brace without its opening one",
        "write }} for the character itself"
      );
      at += 1;
    } else if (source[at] === "{") {
      flush();
      const end = source.indexOf("}", at);
      if (end === -1) {
        complain("unclosed", at, "a field that is not closed", "add } after its name");
        break;
      }
      const inside2 = source.slice(at + 1, end);
      const comma = inside2.indexOf(",");
      const name = (comma === -1 ? inside2 : inside2.slice(0, comma)).trim();
      const style = comma === -1 ? null : inside2.slice(comma + 1).trim();
      count += 1;
      if (count === mostFields + 1)
        complain("too-many-fields", at, `a naming format has at most ${mostFields} fields`);
      if (isFieldName(name)) {
        const wanted2 = style === null ? definitionOf(name).type === "choice" ? "the choices, e.g. {kind, Lab|Reading}" : null : styleProblem(name, style);
        if (wanted2)
          complain(
            "bad-style",
            at + 1 + (comma === -1 ? 0 : inside2.length - inside2.slice(comma + 1).trimStart().length),
            `the style of ${name} should be ${wanted2}`
          );
        into().push({ node: "field", field: name, style });
      } else {
        const near = nearestWord(name, Object.keys(fields));
        complain(
          "unknown-field",
          at + 1,
          `unknown field ${name === "" ? "without a name" : name}`,
          near ? `did you mean ${near}?` : `known fields: ${Object.keys(fields).join(", ")}`
        );
      }
      at = end + 1;
    } else {
      text += source[at];
      at += 1;
    }
  }
  flush();
  if (open)
    complain("unclosed", open.at, "an optional stretch that is not closed", "add ?} where it ends");
  return problems.length > 0 ? failure(problems) : success({ source, nodes: root });
};
var formatOf = remember(5e3, (source) => {
  const result = parseFormat(source);
  if (!result.ok)
    throw new SyntaxError(
      `naming format ${JSON.stringify(source)}: ${result.problems[0]?.message ?? ""}`
    );
  return result.value;
});

// core/src/template/words.ts
var itemKinds = [
  "page",
  "file",
  "web-link",
  "discussion",
  "assignment",
  "assessment",
  "tool-link",
  "heading"
];
var ItemKind = z10.enum(itemKinds);
var strengths = ["must", "should", "may"];
var Strength = z10.enum(strengths);
var audiences = ["students", "staff", "backstage"];
var Audience = z10.enum(audiences).describe(
  "staff: never visible to students; backstage: out of lists and navigation, but reachable"
);
var Key = z10.string().regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, "a key of lower-case letters, digits and single hyphens").max(80);
var Format = z10.string().superRefine((source, context) => {
  if (!isLine(source))
    context.addIssue({
      code: "custom",
      message: "one line, without line ends and control characters"
    });
  const result = parseFormat(source);
  if (result.ok) return;
  for (const problem of result.problems)
    context.addIssue({
      code: "custom",
      message: `a naming format: ${problem.message} at character ${problem.at + 1}${problem.suggestion ? `; ${problem.suggestion}` : ""}`
    });
});
var Html = z10.string().max(5e5);
var Basis = z10.string().max(500).describe("The quality criterion or policy the requirement rests on, in words");

// core/src/template/block/html.ts
var htmlEscapes = {
  "&": "&amp;",
  "<": "&lt;",
  ">": "&gt;",
  '"': "&quot;"
};
var escapeHtml = (text) => text.replace(/[&<>"]/g, (character) => htmlEscapes[character] ?? character);
var paragraph = (text) => `<p>${escapeHtml(text)}</p>`;
var heading = (text) => text === "" ? "" : `<h3>${escapeHtml(text)}</h3>`;
var anchor = (href, text) => `<a href="${escapeHtml(href)}">${escapeHtml(text)}</a>`;
var list = (tag, members) => `<${tag}>${members.map((member) => `<li>${member}</li>`).join("")}</${tag}>`;
var minuteWords = (count) => count === void 0 ? [] : [`${count} ${count === 1 ? "minute" : "minutes"}`];

// core/src/template/block/kind.ts
var defineBlock = (kind, schema, traits) => ({ kind, schema, ...traits });

// core/src/template/block/shared.ts
import { z as z11 } from "zod";
var homeElements = [
  "banner",
  "course-title",
  "welcome",
  "instructor-contact",
  "office-hours",
  "where-to-begin",
  "signposts",
  "help"
];
var HomeElement = z11.enum(homeElements);
var shared = {
  key: Key,
  strength: Strength.default("must"),
  basis: Basis.optional(),
  element: HomeElement.optional()
};
var label = Line(200, 0);
var line = Line(500);
var fresh = (kind, key) => ({ key, kind, strength: "must" });

// core/src/template/block/writing.ts
var asWritten = (html) => ({ html, answer: null });
var dateLineHtml = (line2) => `${escapeHtml(line2.date)}: ${line2.href === null ? escapeHtml(line2.text) : anchor(line2.href, line2.text)}`;

// core/src/template/block/kinds/assignment-brief.ts
var assignmentBrief = defineBlock(
  "assignment-brief",
  z12.strictObject({
    ...shared,
    kind: z12.literal("assignment-brief"),
    why: Html.default(""),
    whatToDo: Html,
    handIn: Html.default("").describe("What is handed in, and in which form"),
    judged: Html.default("").describe("How it is judged")
  }),
  {
    title: "Assignment brief",
    group: "written",
    isFixed: true,
    htmlFields: ["why", "whatToDo", "handIn", "judged"],
    wordFields: ["why", "whatToDo", "handIn", "judged"],
    empty: (key) => ({
      ...fresh("assignment-brief", key),
      why: "<p>Why students do this.</p>",
      whatToDo: "<p>What they do.</p>",
      handIn: "<p>What they hand in.</p>",
      judged: ""
    }),
    html: (block, writing) => {
      const piece = (title2, html) => html === "" ? "" : heading(title2) + writing.html(html);
      return asWritten(
        piece("Why you do it", block.why) + piece("What to do", block.whatToDo) + piece("What to hand in", block.handIn) + piece("How it is judged", block.judged)
      );
    },
    words: ({ why, whatToDo, handIn, judged }) => [why, whatToDo, handIn, judged].map((html) => ({ html }))
  }
);

// core/src/template/block/kinds/banner.ts
import { z as z13 } from "zod";
var banner = defineBlock(
  "banner",
  z13.strictObject({ ...shared, kind: z13.literal("banner"), image: Key }),
  {
    title: "Banner",
    group: "written",
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key, { assets: [first] }) => first ? { ...fresh("banner", key), image: first.key } : null,
    html: (block, writing) => {
      const image = writing.image(block.image);
      return asWritten(
        image ? `<p><img src="asset:${escapeHtml(image.name)}" alt="${escapeHtml(image.alternativeText)}"></p>` : ""
      );
    },
    words: () => null
  }
);

// core/src/template/block/kinds/checklist.ts
import { z as z14 } from "zod";
var checklist = defineBlock(
  "checklist",
  z14.strictObject({
    ...shared,
    kind: z14.literal("checklist"),
    label: label.default("Before you go on"),
    lines: z14.array(line).min(1).max(40)
  }),
  {
    title: "Checklist",
    group: "written",
    isFixed: true,
    htmlFields: [],
    wordFields: ["label", "lines"],
    empty: (key) => ({
      ...fresh("checklist", key),
      label: "Before you go on",
      lines: ["I have \u2026"]
    }),
    html: (block, writing) => asWritten(heading(block.label) + list("ul", block.lines.map(writing.line))),
    words: (block) => block.lines.map((text) => ({ text }))
  }
);

// core/src/template/block/kinds/contact-card.ts
import { z as z15 } from "zod";
var contactCard = defineBlock(
  "contact-card",
  z15.strictObject({
    ...shared,
    kind: z15.literal("contact-card"),
    label: label.default("Your instructor")
  }),
  {
    title: "Contact card",
    group: "made",
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({ ...fresh("contact-card", key), label: "Your instructor" }),
    html: (block, writing) => asWritten(
      heading(block.label) + list(
        "ul",
        writing.instructors.map(
          (person) => `${escapeHtml(person.name)}, ${anchor(`mailto:${person.email}`, person.email)}`
        )
      )
    ),
    words: () => null
  }
);

// core/src/template/block/kinds/discussion-prompt.ts
import { z as z16 } from "zod";
var discussionPrompt = defineBlock(
  "discussion-prompt",
  z16.strictObject({
    ...shared,
    kind: z16.literal("discussion-prompt"),
    question: Html,
    firstBy: line.optional(),
    answers: z16.number().int().min(0).max(20).default(0).describe("How many classmates to answer"),
    answersBy: line.optional()
  }),
  {
    title: "Discussion prompt",
    group: "written",
    isFixed: true,
    htmlFields: ["question"],
    wordFields: ["question"],
    empty: (key) => ({
      ...fresh("discussion-prompt", key),
      question: "<p>An open question to argue about.</p>",
      answers: 1
    }),
    html: (block, writing) => {
      const told = [
        ...block.firstBy ? [`Write first by ${writing.line(block.firstBy)}.`] : [],
        ...block.answers > 0 ? [
          `Answer ${block.answers === 1 ? "one classmate" : `${block.answers} classmates`}${block.answersBy ? ` by ${writing.line(block.answersBy)}` : ""}.`
        ] : []
      ];
      return asWritten(
        writing.html(block.question) + (told.length > 0 ? `<p>${told.join(" ")}</p>` : "")
      );
    },
    words: (block) => [{ html: block.question }]
  }
);

// core/src/template/block/kinds/fill-in.ts
import { z as z17 } from "zod";
var fillInTypes = [
  "text",
  "rich-text",
  "image",
  "file",
  "video",
  "date",
  "e-mail",
  "link",
  "list",
  "table"
];
var newPrompt = "What should stand here?";
var fillIn = defineBlock(
  "fill-in",
  z17.strictObject({
    ...shared,
    kind: z17.literal("fill-in"),
    label: label.optional(),
    type: z17.enum(fillInTypes).default("text"),
    prompt: z17.string().min(1).max(1e3),
    hint: z17.string().max(1e3).optional(),
    scope: z17.enum(["place", "course"]).default("place"),
    minWords: z17.number().int().min(1).max(5e3).optional(),
    maxWords: z17.number().int().min(1).max(5e3).optional(),
    answer: Html.optional().describe("What a layer answered in place of the instructor"),
    earlierPrompts: z17.array(z17.string().max(1e3)).default([]).describe("Prompts of earlier versions; they still count as unfilled")
  }),
  {
    title: "Fill-in",
    group: "left",
    isFixed: false,
    htmlFields: ["answer"],
    wordFields: ["label", "prompt", "hint"],
    empty: (key) => ({
      ...fresh("fill-in", key),
      type: "text",
      prompt: newPrompt,
      scope: "place",
      earlierPrompts: []
    }),
    html: (block, writing) => {
      const above = block.label ? heading(block.label) : "";
      if (block.answer !== void 0)
        return { html: above + writing.html(block.answer), answer: block.answer };
      const answer = block.scope === "course" ? writing.answerTo(block.key) : null;
      return { html: above + paragraph(answer ?? block.prompt), answer };
    },
    words: (block) => [block.label, block.prompt, block.hint].flatMap((text) => text ? [{ text }] : [])
  }
);

// core/src/template/block/kinds/fixed-text.ts
import { z as z18 } from "zod";
var fixedText = defineBlock(
  "fixed-text",
  z18.strictObject({ ...shared, kind: z18.literal("fixed-text"), html: Html }),
  {
    title: "Fixed text",
    group: "written",
    isFixed: true,
    htmlFields: ["html"],
    wordFields: ["html"],
    empty: (key) => ({ ...fresh("fixed-text", key), html: "<p>New fixed text.</p>" }),
    html: (block, writing) => asWritten(writing.html(block.html)),
    words: (block) => [{ html: block.html }]
  }
);

// core/src/template/block/kinds/guidance-note.ts
import { z as z19 } from "zod";
var guidanceNote = defineBlock(
  "guidance-note",
  z19.strictObject({ ...shared, kind: z19.literal("guidance-note"), html: Html }),
  {
    title: "Guidance note",
    group: "left",
    isFixed: false,
    htmlFields: ["html"],
    wordFields: ["html"],
    empty: (key) => ({ ...fresh("guidance-note", key), html: "<p>Advice to the instructor.</p>" }),
    html: (block, writing) => asWritten(`<p><strong>Note to the instructor.</strong></p>${writing.html(block.html)}`),
    words: (block) => [{ html: block.html }]
  }
);

// core/src/template/block/kinds/house-text.ts
import { z as z20 } from "zod";
var houseText = defineBlock(
  "house-text",
  z20.strictObject({
    ...shared,
    kind: z20.literal("house-text"),
    houseText: Key,
    mode: z20.enum(["copied", "linked"]).default("copied")
  }),
  {
    title: "House text",
    group: "kept",
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key, { houseTexts: [first] }) => first ? { ...fresh("house-text", key), houseText: first.key, mode: "copied" } : null,
    html: (block, writing) => {
      const text = writing.houseText(block.houseText);
      if (!text) return asWritten("");
      return asWritten(
        block.mode === "linked" ? `<p>${anchor(`house-text:${text.key}`, text.title)}</p>` : text.html
      );
    },
    words: () => null
  }
);

// core/src/template/block/kinds/in-short.ts
import { z as z21 } from "zod";
var inShort = defineBlock(
  "in-short",
  z21.strictObject({ ...shared, kind: z21.literal("in-short"), html: Html }),
  {
    title: "In short",
    group: "written",
    isFixed: true,
    htmlFields: ["html"],
    wordFields: ["html"],
    empty: (key) => ({ ...fresh("in-short", key), html: "<p>The page in two sentences.</p>" }),
    html: (block, writing) => asWritten(`<p><strong>In short.</strong></p>${writing.html(block.html)}`),
    words: (block) => [{ html: block.html }]
  }
);

// core/src/template/block/kinds/key-dates.ts
import { z as z22 } from "zod";
var keyDates = defineBlock(
  "key-dates",
  z22.strictObject({
    ...shared,
    kind: z22.literal("key-dates"),
    label: label.default("Key dates"),
    of: z22.enum(["module", "term"]).default("module").describe(
      "module: what is due in its module; term: opening day, breaks, holidays, other dates, last day"
    )
  }),
  {
    title: "Key dates",
    group: "made",
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({ ...fresh("key-dates", key), label: "Key dates", of: "module" }),
    html: (block, writing) => asWritten(heading(block.label) + list("ul", writing.keyDates(block.of).map(dateLineHtml))),
    words: () => null
  }
);

// core/src/template/block/kinds/objectives.ts
import { z as z23 } from "zod";

// core/src/template/freshKey.ts
var freshKey = (name, taken) => {
  const plain = name.normalize("NFKD").replace(new RegExp("\\p{M}", "gu"), "").toLowerCase().replace(/\{[^}]*\}/g, "");
  const base = plain.replace(/[^a-z0-9]+/g, "-").replace(/^-+|-+$/g, "").slice(0, 60).replace(/-+$/, "") || "part";
  for (let n = 1; ; n++) {
    const key = n === 1 ? base : `${base}-${n}`;
    if (!taken.has(key)) return key;
  }
};

// core/src/template/block/kinds/objectives.ts
var Objective = z23.strictObject({
  key: Key,
  text: line,
  serves: z23.array(Key).max(30).default([]).describe("Keys of the module objectives or course outcomes it serves")
});
var objectives = defineBlock(
  "objectives",
  z23.strictObject({
    ...shared,
    kind: z23.literal("objectives"),
    label: label.default("By the end you can"),
    objectives: z23.array(Objective).min(1).max(30)
  }),
  {
    title: "Objectives",
    group: "written",
    isFixed: true,
    htmlFields: [],
    wordFields: ["label"],
    empty: (key) => ({
      ...fresh("objectives", key),
      label: "By the end you can",
      objectives: [
        {
          key: freshKey(`${key}-1`, /* @__PURE__ */ new Set()),
          text: "objective, beginning with a verb you could test",
          serves: []
        }
      ]
    }),
    html: (block, writing) => asWritten(
      heading(block.label) + list(
        "ol",
        block.objectives.map((objective) => writing.line(objective.text))
      )
    ),
    words: (block) => block.objectives.map(({ text }) => ({ text }))
  }
);

// core/src/template/block/kinds/reading.ts
import { z as z24 } from "zod";
var reading = defineBlock(
  "reading",
  z24.strictObject({
    ...shared,
    kind: z24.literal("reading"),
    label: label.default("Reading"),
    works: z24.array(
      z24.strictObject({
        text: line,
        url: Address.optional(),
        minutes: z24.number().min(0).max(6e3).optional()
      })
    ).min(1).max(60)
  }),
  {
    title: "Reading",
    group: "written",
    isFixed: true,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({
      ...fresh("reading", key),
      label: "Reading",
      works: [{ text: "What to read, with its pages" }]
    }),
    html: (block, writing) => {
      const works = block.works.map((work) => {
        const name = writing.line(work.text);
        const about = minuteWords(work.minutes).map((words) => ` (about ${words})`);
        return (work.url ? `<a href="${escapeHtml(work.url)}">${name}</a>` : name) + about.join("");
      });
      return asWritten(heading(block.label) + list("ul", works));
    },
    words: () => null
  }
);

// core/src/template/block/kinds/schedule.ts
import { z as z25 } from "zod";
var schedule = defineBlock(
  "schedule",
  z25.strictObject({ ...shared, kind: z25.literal("schedule"), label: label.default("Schedule") }),
  {
    title: "Schedule",
    group: "made",
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({ ...fresh("schedule", key), label: "Schedule" }),
    html: (block, writing) => {
      const rows = writing.schedule().map(
        (row) => `<tr><th scope="row">${anchor(row.module.href, row.module.name)}</th><td>${escapeHtml(row.dates)}</td><td>${escapeHtml(row.topic)}</td><td>${row.due.map(dateLineHtml).join("<br>")}</td></tr>`
      );
      return asWritten(
        `${heading(block.label)}<table><thead><tr><th scope="col">Module</th><th scope="col">Dates</th><th scope="col">Topic</th><th scope="col">Due</th></tr></thead><tbody>${rows.join("")}</tbody></table>`
      );
    },
    words: () => null
  }
);

// core/src/template/block/kinds/signposts.ts
import { z as z26 } from "zod";
var signposts = defineBlock(
  "signposts",
  z26.strictObject({
    ...shared,
    kind: z26.literal("signposts"),
    label: label.optional(),
    links: z26.array(z26.strictObject({ text: Line(200), to: Key.describe("Key of the part it leads to") })).min(1).max(30)
  }),
  {
    title: "Signposts",
    group: "written",
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key, { parts: [first] }) => first ? { ...fresh("signposts", key), links: [{ text: "Begin here", to: first.key }] } : null,
    html: (block, writing) => {
      const links = block.links.flatMap((link) => {
        const target = writing.linkTo(link.to);
        return target ? [`<a href="${escapeHtml(target.href)}">${writing.line(link.text)}</a>`] : [];
      });
      return asWritten((block.label ? heading(block.label) : "") + list("ul", links));
    },
    words: () => null
  }
);

// core/src/template/block/kinds/table.ts
import { z as z27 } from "zod";
var table = defineBlock(
  "table",
  z27.strictObject({
    ...shared,
    kind: z27.literal("table"),
    caption: label,
    header: z27.array(Line(300, 0)).min(1).max(12),
    rows: z27.array(z27.array(z27.string().max(2e3)).max(12)).max(200).default([])
  }).refine((block) => block.rows.every((row) => row.length === block.header.length), {
    message: "as many cells in every row as there are headers",
    path: ["rows"]
  }),
  {
    title: "Table",
    group: "written",
    isFixed: true,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({
      ...fresh("table", key),
      caption: "What the table shows",
      header: ["First", "Second"],
      rows: [["", ""]]
    }),
    html: (block, { line: written }) => {
      const row = (cells) => `<tr>${cells.map((cell) => `<td>${written(cell)}</td>`).join("")}</tr>`;
      return asWritten(
        `<table>${block.caption === "" ? "" : `<caption>${written(block.caption)}</caption>`}<thead><tr>${block.header.map((cell) => `<th scope="col">${written(cell)}</th>`).join("")}</tr></thead><tbody>${block.rows.map(row).join("")}</tbody></table>`
      );
    },
    words: () => null
  }
);

// core/src/template/block/kinds/take-care.ts
import { z as z28 } from "zod";
var takeCare = defineBlock(
  "take-care",
  z28.strictObject({ ...shared, kind: z28.literal("take-care"), html: Html }),
  {
    title: "Take care",
    group: "written",
    isFixed: true,
    htmlFields: ["html"],
    wordFields: ["html"],
    empty: (key) => ({
      ...fresh("take-care", key),
      html: "<p>What goes wrong, and how not to let it.</p>"
    }),
    html: (block, writing) => asWritten(`<p><strong>Take care.</strong></p>${writing.html(block.html)}`),
    words: (block) => [{ html: block.html }]
  }
);

// core/src/template/block/kinds/title.ts
import { z as z29 } from "zod";
var title = defineBlock(
  "title",
  z29.strictObject({ ...shared, kind: z29.literal("title"), text: Format }),
  {
    title: "Title",
    group: "written",
    isFixed: false,
    htmlFields: [],
    wordFields: ["text"],
    empty: (key) => ({ ...fresh("title", key), text: "{code} {title}" }),
    html: (block, writing) => asWritten(`<h2>${escapeHtml(writing.name(block.text))}</h2>`),
    words: (block) => [{ text: block.text }]
  }
);

// core/src/template/block/kinds/video.ts
import { z as z30 } from "zod";
var video = defineBlock(
  "video",
  z30.strictObject({
    ...shared,
    kind: z30.literal("video"),
    title: line,
    url: Address,
    minutes: z30.number().min(0).max(600).optional(),
    captions: z30.boolean().default(false),
    transcript: Address.optional().describe("Address of the transcript")
  }),
  {
    title: "Video",
    group: "written",
    isFixed: true,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({
      ...fresh("video", key),
      title: "Title of the video",
      url: "",
      captions: false
    }),
    html: (block, writing) => {
      const told = [
        ...minuteWords(block.minutes),
        block.captions ? "with captions" : "without captions"
      ];
      const name = writing.line(block.title);
      return asWritten(
        `<h3>${name}</h3><p><a href="${escapeHtml(block.url)}">${name}</a> (${told.join(", ")})</p>${block.transcript ? `<p>${anchor(block.transcript, "Transcript")}</p>` : ""}`
      );
    },
    words: () => null
  }
);

// core/src/template/block/kinds/work-list.ts
import { z as z31 } from "zod";
var workList = defineBlock(
  "work-list",
  z31.strictObject({ ...shared, kind: z31.literal("work-list"), label: label.default("To do") }),
  {
    title: "Work list",
    group: "made",
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({ ...fresh("work-list", key), label: "To do" }),
    html: (block, writing) => asWritten(
      heading(block.label) + list(
        "ul",
        writing.moduleLinks().map((link) => anchor(link.href, link.name))
      )
    ),
    words: () => null
  }
);

// core/src/template/block/kinds.ts
var definedKinds = [
  fixedText,
  title,
  objectives,
  checklist,
  reading,
  video,
  assignmentBrief,
  discussionPrompt,
  takeCare,
  inShort,
  table,
  banner,
  signposts,
  fillIn,
  guidanceNote,
  houseText,
  workList,
  keyDates,
  schedule,
  contactCard
];

// core/src/template/block.ts
var KeptBlockBody = z32.discriminatedUnion("kind", schemasOf(definedKinds));
var KeptBlockPlace = z32.strictObject({
  ...shared,
  kind: z32.literal("kept-block"),
  kept: Key.describe("Key of the kept block")
});
var Block = z32.discriminatedUnion("kind", [...KeptBlockBody.options, KeptBlockPlace]);
var KeptBlock = z32.strictObject({ key: Key, title: Line(200), block: KeptBlockBody });
var kinds = new Map(
  definedKinds.map((defined) => [defined.kind, defined])
);
var offeredBlocks = [
  ...definedKinds.map(({ kind, title: title2, group }) => ({ kind, title: title2, group })),
  { kind: "kept-block", title: "Kept block", group: "kept" }
];
var htmlFields = new Set(
  definedKinds.flatMap((defined) => defined.htmlFields)
);
var wordFields = new Set(
  definedKinds.flatMap((defined) => defined.wordFields)
);
var fixedKinds = new Set(
  definedKinds.flatMap(({ kind, isFixed }) => isFixed ? [kind] : [])
);

// core/src/template/part.ts
import { z as z33 } from "zod";
var When = z33.strictObject({
  modalities: z33.array(z33.string().max(40)).optional(),
  departments: z33.array(z33.string().max(40)).optional(),
  weeks: z33.strictObject({ from: z33.number().int().min(1), to: z33.number().int().min(1) }).optional(),
  classSections: z33.enum(["own", "shared"]).optional()
}).describe("The part applies only to courses for which all of this holds");
var weekNumber = z33.number().int().min(0).max(60);
var Repeat = z33.strictObject({
  per: z33.enum(["week", "unit", "day", "half", "times"]),
  times: z33.number().int().min(1).max(60).optional().describe("How often, for per: times"),
  from: weekNumber.optional(),
  to: weekNumber.optional(),
  every: z33.number().int().min(1).max(20).default(1).describe("2 with from 2: the even weeks"),
  except: z33.array(weekNumber).default([])
}).refine((repeat) => repeat.per !== "times" || repeat.times !== void 0, {
  message: "times, when per is times",
  path: ["times"]
});
var Grouping = z33.strictObject({
  min: z33.number().int().min(1).max(60),
  max: z33.number().int().min(1).max(60),
  name: Format.describe("Naming format of a unit, e.g. Unit {unit} \xB7 {dates}")
}).describe(
  "Longer units accepted in place of the weekly modules; which weeks each covers is read from the course"
);
var May = z33.strictObject({
  rename: z33.boolean().optional(),
  edit: z33.boolean().optional(),
  remove: z33.boolean().optional(),
  duplicate: z33.boolean().optional(),
  move: z33.boolean().optional()
}).describe("What an instructor may do with the part");
var workFields = {
  attempts: z33.number().int().min(1).max(100).optional(),
  minutes: z33.number().int().min(1).max(6e3).optional().describe("Time limit"),
  graceMinutes: z33.number().int().min(0).max(600).optional(),
  notification: z33.boolean().optional().describe("Whether students are told of new posts"),
  postFirst: z33.boolean().optional().describe("Whether students see others\u2019 posts only after their own"),
  handIn: z33.enum(["file", "text", "link", "recording", "on-paper", "none"]).optional().describe("What is handed in"),
  practice: z33.boolean().optional().describe("true: outside the grade")
};
var WorkSettings = z33.strictObject(workFields);
var Settings = z33.strictObject({
  published: z33.boolean().optional(),
  points: z33.number().min(0).max(1e4).optional(),
  category: Line(100, 0).optional(),
  opens: Offset.optional(),
  due: Offset.optional(),
  closes: Offset.optional(),
  rubric: Key.optional().describe("Key of the rubric by which it is judged"),
  ...workFields
});
var Anchor = z33.discriminatedUnion("at", [
  z33.strictObject({ at: z33.enum(["first", "last", "last-of-unit", "pause"]) }),
  z33.strictObject({ at: z33.literal("number"), number: weekNumber })
]).describe("pause: a week that lies wholly in a break");
var overlay = { name: Format.optional(), strength: Strength.optional() };
var exceptionShape = {
  key: Key,
  anchor: Anchor,
  omit: z33.boolean().default(false).describe("true: this repetition does not exist at all"),
  ...overlay,
  leaveOut: z33.union([z33.literal("all"), z33.array(Key).max(400)]).default([]).describe("Keys of parts of the module that this repetition goes without"),
  set: z33.array(z33.strictObject({ part: Key, ...overlay, settings: Settings.optional() })).max(400).default([]).describe("Single fields of parts of the module that are different here")
};
var shared2 = {
  key: Key,
  strength: Strength.default("must"),
  basis: Basis.optional(),
  audience: Audience.default("students"),
  name: Format,
  position: z33.enum(["in-order", "first", "last", "anywhere", "newest-first"]).default("in-order"),
  span: z33.enum(["module", "course"]).default("module").describe("course: a resource for the whole term, outside the weeks"),
  when: When.optional(),
  repeat: Repeat.optional(),
  may: May.default({}),
  settings: Settings.default({})
};
var Item = z33.strictObject({
  ...shared2,
  kind: ItemKind,
  blocks: z33.array(Block).max(200).default([]),
  url: Address.optional(),
  acceptsInstead: z33.array(z33.union([ItemKind, Key])).default([]).describe("Other kinds, or keys of other parts, that do its job"),
  inGroup: z33.enum(["per-unit", "per-week"]).default("per-unit").describe("How often it is wanted where units stand in place of weeks"),
  assesses: z33.array(Key).max(60).default([]).describe("Keys of the outcomes and objectives it assesses")
});
var moduleShape = {
  ...shared2,
  kind: z33.literal("module"),
  groupings: Grouping.optional(),
  objectives: z33.array(Objective).max(30).default([])
};
var BareModule = z33.strictObject(moduleShape);
var BareException = z33.strictObject(exceptionShape);
var Part = z33.lazy(() => z33.discriminatedUnion("kind", [Module, Item]));
var Exception = z33.strictObject({
  ...exceptionShape,
  add: z33.array(Part).max(100).default([]).describe("Parts that only this repetition has")
});
var Module = z33.strictObject({
  ...moduleShape,
  items: z33.array(Part).max(400).default([]),
  exceptions: z33.array(Exception).max(60).default([])
});

// core/src/template/grading.ts
import { z as z34 } from "zod";
var GradeScheme = z34.strictObject({
  weighted: z34.boolean().default(true).describe("Whether categories carry weights that come to 100"),
  shown: z34.enum(["rolled-up", "item-by-item"]).default("rolled-up").describe("Scores rolled up by category, or item by item"),
  categories: z34.array(
    z34.strictObject({
      key: Key,
      name: Line(100),
      weight: z34.number().min(0).max(100).default(0),
      counts: z34.boolean().default(true).describe("false: practice, outside the grade")
    })
  ).max(40).default([])
});
var Level = z34.strictObject({ text: z34.string().max(1e3), points: z34.number().min(0).max(1e4) });
var Rubric = z34.strictObject({
  key: Key,
  title: Line(200),
  criteria: z34.array(z34.strictObject({ text: Line(500), levels: z34.array(Level).min(1).max(10) })).min(1).max(30)
});
var CourseSettings = z34.strictObject({
  language: z34.string().regex(
    /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/,
    "a language tag as BCP 47 has them, e.g. en or fr-CA"
  ).optional(),
  gradesShown: z34.boolean().optional().describe("Whether students see their running grade"),
  joinByKey: z34.boolean().optional().describe("Whether anybody with the course\u2019s key may join"),
  completionTracked: z34.boolean().optional(),
  notices: z34.boolean().optional().describe("Whether announcements also go out by e-mail")
});

// core/src/template/made.ts
var shared3 = {
  strength: "must",
  audience: "students",
  position: "in-order",
  span: "module",
  may: {},
  settings: {}
};
var newItem = (kind, key, name) => ({
  ...shared3,
  kind,
  key,
  name,
  blocks: [],
  acceptsInstead: [],
  inGroup: "per-unit",
  assesses: []
});

// core/src/course/course.ts
import { z as z35 } from "zod";
var Instant = z35.iso.datetime({ offset: true });
var Id = z35.string().min(1).max(100);
var RecordedAs = z35.strictObject({
  part: z35.string().max(80),
  repetition: z35.string().max(80).nullable().default(null).describe("Id minted when it was first deployed"),
  number: z35.number().int().nullable().default(null).describe(
    "Number of that repetition when it was last deployed: an attribute, not its identity"
  )
}).describe("Which part of the template a deployment made this from");
var published = z35.boolean().default(true).describe("false: hidden from students for now, as an instructor hides and shows things");
var staffOnly = z35.boolean().default(false).describe("true: never for students, whether it is published or not");
var carried = z35.record(z35.string().max(200), JsonValue).optional().describe(
  "What the platform holds of it that has no field here; Wickerframe carries it along and never looks into it"
);
var CourseItem = z35.strictObject({
  id: Id,
  kind: ItemKind,
  name: z35.string().max(2e3),
  published,
  staffOnly,
  opensAt: Instant.nullable().default(null),
  dueAt: Instant.nullable().default(null),
  closesAt: Instant.nullable().default(null),
  points: z35.number().nullable().default(null),
  category: z35.string().max(200).nullable().default(null),
  html: z35.string().nullable().default(null).describe("As the platform holds it; never run"),
  url: z35.string().max(2e3).nullable().default(null).describe("Its address on the platform, as links in pages write it"),
  target: z35.string().max(2e3).nullable().default(null).describe("Where a web link or tool link leads"),
  work: WorkSettings.optional().describe("How work is handed in and judged, as far as it is set"),
  rubric: Rubric.optional(),
  studentWork: z35.boolean().default(false),
  carried,
  recordedAs: RecordedAs.optional()
});
var moduleShape2 = {
  id: Id,
  kind: z35.literal("module"),
  name: z35.string().max(2e3),
  published,
  staffOnly,
  opensAt: Instant.nullable().default(null),
  url: z35.string().max(2e3).optional().describe("Address at which the platform shows the module, as links in pages have it"),
  carried,
  recordedAs: RecordedAs.optional()
};
var BareModule2 = z35.strictObject(moduleShape2);
var CourseChild = z35.lazy(
  () => z35.discriminatedUnion("kind", [CourseItem, CourseModule])
);
var CourseModule = z35.strictObject({
  ...moduleShape2,
  children: z35.array(CourseChild).max(2e3).default([]).describe("Items and inner modules, in the order in which students meet them")
});
var CourseFile = z35.strictObject({
  id: Id,
  name: z35.string().max(500),
  url: z35.string().max(2e3),
  restricted: z35.boolean().default(false).describe("Flagged as about a student, or kept from students otherwise")
});
var Course = z35.strictObject({
  schema: z35.literal("wickerframe.course/2"),
  id: Id,
  name: z35.string().max(2e3),
  label: z35.string().max(300).default(""),
  status: z35.enum(["preparing", "teaching", "merged", "set-aside", "cancelled"]).default("teaching"),
  published: z35.boolean().default(false),
  revision: z35.string().max(100).default("1"),
  readAt: Instant.describe("When it was read; its age is always shown"),
  timeZone: z35.string().max(60).nullable().default(null),
  opensAt: Instant.nullable().default(null).describe("From when students reach the course; null: as soon as it is published"),
  closesAt: Instant.nullable().default(null).describe("Until when students reach it; null: without end"),
  homePage: Id.nullable().default(null).describe("Id of the item shown first"),
  navigation: z35.array(z35.strictObject({ label: z35.string().max(300), hidden: z35.boolean().default(false) })).default([]),
  settings: CourseSettings.optional(),
  grading: GradeScheme.optional(),
  classSections: z35.array(z35.string().max(40)).max(200).optional().describe("Class sections enrolled on the platform, where it tells them"),
  instructors: z35.array(z35.string().max(200)).max(200).optional().describe("E-mail addresses of those who teach it on the platform, where it tells them"),
  files: z35.array(CourseFile).max(1e4).optional().describe("What was uploaded, where the platform tells it"),
  modules: z35.array(CourseModule).max(400).default([]),
  stray: z35.array(CourseItem).max(5e3).default([]).describe(
    "Items outside every module, the home page among them where the platform keeps it so"
  )
});
var isCourseModule = (child) => child.kind === "module";
var itemsIn = (module) => module.children.filter((child) => child.kind !== "module");
var modulesIn = (module) => module.children.filter(isCourseModule);
var everyModule = (modules) => modules.flatMap((module) => [module, ...everyModule(modulesIn(module))]);

// demo/src/random.ts
var pick = (random, from) => {
  const picked = from[Math.floor(random() * from.length)];
  if (picked === void 0) throw new RangeError("nothing to pick from");
  return picked;
};

// demo/src/instructorEdits.ts
var items = (course2) => [
  ...everyModule(course2.modules).flatMap((module) => itemsIn(module)),
  ...course2.stray
];
var itemsNamed = (course2, name) => items(course2).filter((item) => name.test(item.name));
var weekModules = (course2) => course2.modules.filter((module) => /^Week \d+ /.test(module.name));
var weekOf = (module) => Number(/\d+/.exec(module.name)?.[0]);
var setHtml = (item, html) => html === item.html ? [] : [{ change: "set-item", id: item.id, fields: { html } }];
var answers = [
  [
    /Greet your students in two or three sentences and say why this course matters at sea\./,
    [
      "Welcome aboard. In this course you learn what keeps a ship and her people safe, and you will use it from the first day of your first watch.",
      "Good morning, everyone, and welcome. What we do here is what your shipmates will count on you for, at three in the morning, in bad weather."
    ]
  ],
  [
    /Your name and the e-mail address students should write to\./,
    [
      'Write to <a href="mailto:harbour.desk@kestrelsound.example">harbour.desk@kestrelsound.example</a>, any day of the week; ask for me by name.'
    ]
  ],
  [
    /Days, times and the room or link where students find you\./,
    [
      "Tuesdays and Thursdays, 13:00 to 14:30, room 214 above the boat shed.",
      "Mondays 10:00 to 11:30 in the Chart Room, or by appointment."
    ]
  ],
  [
    /How soon you answer, and where students can talk to you live\./,
    ["Within a working day; we talk live on Wednesdays at 18:00."]
  ],
  [
    /Say who you are, where you have sailed or worked, and what you like about this subject\./,
    [
      "I went to sea at seventeen, worked the coast boats for eleven years, and have taught here since the new quay was built."
    ]
  ],
  [
    /List three to six things a student can do at the end, each beginning with a verb you could test\./,
    [
      "Explain how the gear works. Operate it safely under supervision. Record what was done. Judge when to ask for help."
    ]
  ],
  [
    /In two or three sentences, say what this week is about and why it matters at sea\./,
    [
      "This week we take the subject apart step by step, first ashore and then on the training boat, so that nothing surprises you on watch.",
      "We look at what goes wrong most often, why it does, and what a careful hand does before it happens."
    ]
  ],
  [
    /Two or three objectives, each beginning with a verb you could test\./,
    ["Describe the parts. Carry out the procedure. Write it up in the log."]
  ],
  [
    /Chapters, charts or notices to read, with page numbers\./,
    ["Harbour handbook, pages 12 to 31; the notices on the board by the slip."]
  ],
  [
    /One open question students can argue about from their own experience\./,
    ["When did a shortcut save you time, and when did it cost you more?"]
  ],
  [
    /Say what students hand in, in which form, and how long it should take\./,
    ["Hand in a written log of two pages; allow three hours for it."]
  ],
  [
    /Links and files that students need all term\./,
    [
      "All of these lie in the chart room:</p><ul><li>the tide tables</li><li>the signal book</li><li>the college\u2019s own chart folio</li></ul><p>Hand them back before the watch changes."
    ]
  ]
];
var fillIn2 = (upToWeek, share) => (course2, random) => items(course2).flatMap((item) => {
  if (item.html === null) return [];
  const week = Number(
    /Week (\d+)|Discussion (\d+)/.exec(item.name)?.slice(1).find(Boolean) ?? /Assignment (\d+)/.exec(item.name)?.slice(1).map((n) => Number(n) * 2)[0] ?? 0
  );
  if (week > upToWeek) return [];
  let html = item.html;
  for (const [prompt, texts] of answers)
    if (prompt.test(html) && random() < share)
      html = html.replace(prompt, () => pick(random, texts));
  return setHtml(item, html);
});
var guidance = /<(div|aside|section)\b[^>]*data-wicker-block="advice"[^>]*>[\s\S]*?<\/\1>/;
var takeNotesOut = (upToWeek) => (course2) => items(course2).flatMap((item) => {
  const week = Number(/Week (\d+)/.exec(item.name)?.[1] ?? 0);
  return item.html === null || week > upToWeek ? [] : setHtml(item, item.html.replace(guidance, ""));
});
var publish = () => [{ change: "set-course", published: true }];
var showStaffNotes = (course2) => itemsNamed(course2, /^Notes for the instructor$/).map((item) => ({
  change: "set-item",
  id: item.id,
  fields: { published: true, staffOnly: false }
}));
var hideWeek = (week) => (course2) => weekModules(course2).filter((module) => weekOf(module) === week).map((module) => ({ change: "set-module", id: module.id, fields: { published: false } }));
var deleteItems = (name) => (course2) => itemsNamed(course2, name).map((item) => ({ change: "remove-item", id: item.id }));
var ownWeekNames = (course2, random) => {
  const style = pick(random, ["wk {n} - {t}", "Week {n}: {t}", "W{n} {t}", "Week {n} ({t})"]);
  return weekModules(course2).filter((module) => weekOf(module) <= 6).map((module) => ({
    change: "set-module",
    id: module.id,
    fields: {
      name: style.replace("{n}", String(weekOf(module))).replace("{t}", module.name.split(" \xB7 ").at(-1) ?? "")
    }
  }));
};
var shiftDay = (text) => text.replace(
  /([A-Z][a-z]{2}) (\d+)/g,
  (_, month, day) => `${month} ${Math.min(31, Number(day) + 1)}`
);
var lastYearsDates = (course2) => weekModules(course2).filter((module) => weekOf(module) <= 8).map((module) => {
  const parts = module.name.split(" \xB7 ");
  return {
    change: "set-module",
    id: module.id,
    fields: { name: [parts[0], shiftDay(parts[1] ?? ""), ...parts.slice(2)].join(" \xB7 ") }
  };
});
var lastYearsPage = (course2) => itemsNamed(course2, /^Week 2 overview$/).flatMap(
  (item) => setHtml(
    item,
    `${item.html}<p>Boat day this year is Saturday, September 20, 2025, from the east slip.</p>`
  )
);
var duplicateAssignment = (course2) => itemsNamed(course2, /Assignment 1/).slice(0, 1).map((item) => ({ change: "duplicate-item", id: item.id, clientId: "copy" }));
var checklistFirst = (course2) => weekModules(course2).filter((module) => weekOf(module) <= 4).flatMap((module) => {
  const checklist2 = itemsIn(module).find((item) => item.name.endsWith(" checklist"));
  return checklist2 ? [{ change: "move-item", id: checklist2.id, module: module.id, at: 0 }] : [];
});
var alterPromise = (course2) => itemsNamed(course2, /^Welcome to/).flatMap(
  (item) => setHtml(item, (item.html ?? "").replace("within one working day", "when I get round to it"))
);
var noHome = (course2) => itemsNamed(course2, /syllabus/).slice(0, 1).map((item) => ({ change: "set-home", item: item.id }));
var ownPage = (course2) => {
  const week = weekModules(course2)[1];
  return week ? [
    {
      change: "create-item",
      clientId: "own",
      module: week.id,
      at: 2,
      kind: "page",
      fields: {
        name: "What the old hands say",
        html: "<p>Three skippers on their first winter. Read before Thursday.</p>"
      }
    }
  ] : [];
};
var noDue = (course2) => itemsNamed(course2, /Assignment 1/).slice(0, 1).map((item) => ({ change: "set-item", id: item.id, fields: { dueAt: null } }));
var intoUnits = (course2) => {
  const weeks = weekModules(course2);
  const per = Math.ceil(weeks.length / 4);
  return [0, 1, 2, 3].flatMap((unit) => {
    const own = weeks.slice(unit * per, (unit + 1) * per);
    const first = own[0];
    const last = own.at(-1);
    if (!first || !last) return [];
    const clientId = `unit-${unit + 1}`;
    return [
      {
        change: "create-module",
        clientId,
        parent: null,
        at: 1 + unit,
        fields: { name: `Unit ${unit + 1} \xB7 Weeks ${weekOf(first)}\u2013${weekOf(last)}` }
      },
      ...own.flatMap((module) => [
        ...itemsIn(module).map((item) => ({
          change: "move-item",
          id: item.id,
          module: `ref:${clientId}`,
          at: null
        })),
        { change: "remove-module", id: module.id }
      ])
    ];
  });
};
var stories = {
  perfect: [fillIn2(16, 1), takeNotesOut(16), publish],
  "nearly there": [fillIn2(5, 1), takeNotesOut(5), publish, ownPage],
  "own week names": [fillIn2(6, 1), takeNotesOut(6), publish, ownWeekNames],
  "last year\u2019s dates": [fillIn2(6, 1), takeNotesOut(6), publish, lastYearsDates, lastYearsPage],
  "notes left standing": [fillIn2(4, 1), publish],
  "staff notes shown": [fillIn2(5, 1), takeNotesOut(5), publish, showStaffNotes],
  "half done": [fillIn2(2, 0.6), takeNotesOut(2), publish, deleteItems(/^Week [35] checklist$/)],
  "this week hidden": [fillIn2(5, 1), takeNotesOut(5), publish, hideWeek(3), duplicateAssignment],
  "order of her own": [
    fillIn2(6, 1),
    takeNotesOut(6),
    publish,
    checklistFirst,
    deleteItems(/^Week [12] weather chart$/)
  ],
  "changed the promise": [fillIn2(5, 1), takeNotesOut(5), publish, alterPromise, noDue],
  "home lost": [fillIn2(4, 1), takeNotesOut(4), publish, noHome],
  "four units": [fillIn2(16, 1), takeNotesOut(16), publish, intoUnits],
  "not begun": []
};

// demo/src/people.ts
var instructors = [
  "Sunniva Drake",
  "Okwudili Marsh",
  "Ines Carvalho-Roe",
  "Tomasz Wieland",
  "Hinemoa Pryor",
  "Ravi Sundaresan-Holt",
  "Aputi Sorenvik",
  "Leocadia Brandt",
  "Farrukh Oyelaran",
  "Maren Thistlewood",
  "Jun Haverkamp",
  "Siobhan Quarrie",
  "Dragan Ellingsen",
  "Wanjiru Petrossian",
  "Bettina Skarsgate",
  "Elio Narvaez-Lund",
  "Katya Broadwater",
  "Mikkel Tanaraq",
  "Yusra Fairleigh",
  "Cormac Delacroix-Ibe",
  "Noor Vandersloot",
  "Pilar Hjort",
  "Augustin Keawe",
  "Greta Omondi"
].map((name) => ({
  name,
  email: `${name.toLowerCase().replace(/[^a-z]+/g, ".")}@kestrelsound.example`
}));
var signIns = [
  { name: "Ingrid Okafor", account: "designer" },
  { name: "Bram Castellanos", account: "contributor" },
  { name: "Halima Strand", account: "reviewer" },
  { name: "Petra Lindqvist-Mbeki", account: "administrator" },
  ...instructors.slice(0, 6).map((person) => ({ ...person, account: "instructor" }))
].map(({ account, ...person }) => ({
  email: `${account}@kestrelsound.example`,
  ...person,
  roles: [account],
  departments: []
}));

// demo/src/terms.ts
var read = (json) => {
  const term = readDocument(Term, json);
  if (!term.ok) throw new Error(`demo term: ${JSON.stringify(term.problems)}`);
  return term.value;
};
var zone = { timeZone: "America/Halifax" };
var terms = [
  read({
    code: "autumn-2026",
    title: "Autumn 2026",
    ...zone,
    firstDay: "2026-08-31",
    lastDay: "2026-12-18",
    breaks: [{ name: "Fall Pause", first: "2026-11-09", last: "2026-11-13" }],
    holidays: [
      { name: "Labour Day", date: "2026-09-07" },
      { name: "Thanksgiving", date: "2026-10-12" }
    ],
    otherDates: [
      { name: "Last day to withdraw", date: "2026-10-30" },
      { name: "Exam week begins", date: "2026-12-14" }
    ],
    sessions: [
      { code: "first-half", title: "First half", firstDay: "2026-08-31", lastDay: "2026-10-23" },
      { code: "second-half", title: "Second half", firstDay: "2026-10-26", lastDay: "2026-12-18" }
    ]
  }),
  read({
    code: "winter-short-2027",
    title: "Winter Short 2027",
    ...zone,
    firstDay: "2027-01-04",
    lastDay: "2027-02-26"
  }),
  read({
    code: "spring-2027",
    title: "Spring 2027",
    ...zone,
    firstDay: "2027-01-11",
    lastDay: "2027-04-30",
    breaks: [{ name: "Ice Week", first: "2027-03-01", last: "2027-03-05" }],
    breakWeeksCount: false
  }),
  read({
    code: "summer-seven-2027",
    title: "Summer Seven 2027",
    ...zone,
    firstDay: "2027-05-31",
    lastDay: "2027-07-16"
  })
];
var demoTimeZone = zone.timeZone;

// demo/src/templates.ts
import { readFileSync } from "node:fs";

// demo/src/nameCorpus.ts
import { readFileSync as readFileSync2 } from "node:fs";
import { fileURLToPath } from "node:url";
var termNamed = (code) => {
  const term = terms.find((term2) => term2.code === code);
  if (!term) throw new Error(`there is no term ${code}`);
  return term;
};
var course = (code, title2, term, more = {}) => ({
  schema: "wickerframe.facts/1",
  code,
  title: title2,
  department: code.slice(0, 3),
  modality: "on-campus",
  weeks: 16,
  term: termNamed(term),
  classSections: ["01"],
  classSectionKind: "own",
  instructors: [{ name: "Sunniva Drake", email: "sunniva.drake@kestrelsound.example" }],
  topics: {},
  answers: {},
  meetingDays: ["tuesday", "thursday"],
  ...more
});
var workdays = ["monday", "tuesday", "wednesday", "thursday", "friday"];
var courses = {
  nav110: course("NAV 110", "Coastal Navigation", "autumn-2026", {
    classSections: ["01", "02", "03", "04", "05", "06", "07", "08"]
  }),
  saf150: course("SAF 150", "Liferaft & Flare Drill", "autumn-2026", {
    weeks: 8,
    session: "first-half",
    meetingDays: workdays,
    units: [
      { number: 1, firstWeek: 1, lastWeek: 4 },
      { number: 2, firstWeek: 5, lastWeek: 8 }
    ]
  }),
  osc240: course("OSC 240", "Sea Ice", "autumn-2026", {
    units: [1, 2, 3, 4].map((number) => ({
      number,
      firstWeek: number * 4 - 3,
      lastWeek: number * 4
    }))
  }),
  osc101: course("OSC 101", "Tides & Currents", "autumn-2026"),
  men120: course("MEN 120", "Diesel Propulsion I", "autumn-2026"),
  gal115: course("GAL 115", "Provisioning at Sea", "autumn-2026"),
  hop215: course("HOP 215", "Pilotage & Port Law", "spring-2027", { weeks: 15 }),
  spring: course("NAV 220", "Bridge Watchkeeping", "spring-2027", { weeks: 15 }),
  summer: course("SAF 115", "Deck Hand Work", "summer-seven-2027", { weeks: 7 }),
  merged: course("NAV 140", "Chartwork Studio", "autumn-2026", { classSections: ["01", "02"] })
};

// demo/src/layers.ts
var fixed = (key, html) => ({
  kind: "fixed-text",
  key,
  strength: "must",
  html
});
var set = (part, field, was, value) => ({
  edit: "set-field",
  part,
  field,
  was,
  value
});
var harbourDraftEdits = [
  set("week", ["exceptions", "week-pause"], null, {
    key: "week-pause",
    anchor: { at: "pause" },
    omit: false,
    name: "Week {week} \xB7 {dates} \xB7 no class",
    leaveOut: "all",
    set: [],
    add: [
      {
        ...newItem("page", "pause-notice", "No class this week"),
        blocks: [
          fixed(
            "notice",
            "<p>The college pauses this week. Nothing is due, and questions are answered when we are back.</p>"
          )
        ]
      }
    ]
  }),
  set("week", ["exceptions", "week-first"], null, {
    key: "week-first",
    anchor: { at: "first" },
    omit: false,
    leaveOut: [],
    set: [],
    add: [
      {
        ...newItem("page", "how-placed", "How are you placed?"),
        strength: "should",
        blocks: [
          {
            kind: "fill-in",
            key: "questions",
            strength: "should",
            type: "list",
            scope: "place",
            earlierPrompts: [],
            prompt: "Three questions to your students about time, tools and experience."
          }
        ]
      }
    ]
  }),
  set("reading", ["strength"], "should", "may"),
  { edit: "move-part", part: "weather", parent: "week", at: 2 },
  set("questions", ["name"], "Questions for everyone", "Ask the crew: questions for everyone")
];

// identity/src/provider.ts
import { generateKeyPairSync, randomBytes } from "node:crypto";
import { createServer } from "node:http";
import Provider from "oidc-provider";
var escaped = (text) => text.replace(/[&<>"]/g, (sign) => `&#${sign.codePointAt(0) ?? 0};`);
var page = (body) => `<!doctype html><html lang="en"><meta charset="utf-8"><title>Practice identity provider</title>
<style>body{font:16px/1.5 sans-serif;max-width:36rem;margin:4rem auto;padding:0 1rem}button{display:block;width:100%;margin:.3rem 0;padding:.5rem;text-align:left;font:inherit}</style>
<h1>Practice identity provider</h1>${body}</html>`;
var bodyOf = async (request) => {
  let text = "";
  for await (const chunk of request) text += String(chunk);
  return new URLSearchParams(text);
};
var startIdentityProvider = async ({
  port,
  clientId,
  clientSecret,
  redirectUri,
  people
}) => {
  const server = createServer();
  await new Promise((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", resolve);
  });
  const bound = server.address();
  const issuer = `http://127.0.0.1:${typeof bound === "object" && bound ? bound.port : port}`;
  const byEmail = new Map(people.map((person) => [person.email, person]));
  const provider2 = new Provider(issuer, {
    clients: [
      {
        client_id: clientId,
        client_secret: clientSecret,
        redirect_uris: [redirectUri],
        grant_types: ["authorization_code"],
        response_types: ["code"]
      }
    ],
    jwks: {
      keys: [
        {
          ...generateKeyPairSync("rsa", { modulusLength: 2048 }).privateKey.export({
            format: "jwk"
          }),
          use: "sig",
          alg: "RS256"
        }
      ]
    },
    cookies: { keys: [randomBytes(32).toString("hex")] },
    claims: { openid: ["sub"], email: ["email", "email_verified"], profile: ["name", "groups"] },
    // What is asked for stands in the ID token itself.
    conformIdTokenClaims: false,
    features: { devInteractions: { enabled: false } },
    interactions: { url: (_, interaction) => `/pick/${interaction.uid}` },
    findAccount: (_, email) => {
      const person = byEmail.get(email);
      return person && {
        accountId: email,
        claims: () => ({
          sub: email,
          email,
          email_verified: person.emailVerified ?? true,
          name: person.name,
          groups: person.groups
        })
      };
    },
    ttl: { Interaction: 600, Session: 3600, Grant: 3600, AccessToken: 600, IdToken: 600 },
    renderError: (ctx, { error, error_description }) => {
      ctx.type = "html";
      ctx.body = page(`<p>${escaped(`${error}: ${error_description ?? ""}`)}</p>`);
    }
  });
  const answer = provider2.callback();
  const pick2 = async (request, response) => {
    const interaction = await provider2.interactionDetails(request, response);
    if (request.method === "POST") {
      const accountId = (await bodyOf(request)).get("who") ?? "";
      const grant = new provider2.Grant({ accountId, clientId });
      grant.addOIDCScope("openid email profile");
      const grantId = await grant.save();
      await provider2.interactionFinished(
        request,
        response,
        byEmail.has(accountId) ? { login: { accountId }, consent: { grantId } } : { error: "access_denied", error_description: "nobody was picked" }
      );
      return;
    }
    response.setHeader("content-type", "text/html; charset=utf-8");
    response.end(
      page(`<p>Who are you? ${escaped(String(interaction.params["client_id"]))} asks.</p><form method="post">
${people.map(({ email, name, groups }) => `<button name="who" value="${escaped(email)}">${escaped(name)} <small>${escaped([email, ...groups].join(", "))}</small></button>`).join("\n")}
<button name="who" value="">None of them</button></form>`)
    );
  };
  server.on("request", (request, response) => {
    if (!request.url?.startsWith("/pick/")) return void answer(request, response);
    pick2(request, response).catch(() => {
      response.statusCode = 400;
      response.end(page("<p>That sign-in is over; begin anew.</p>"));
    });
  });
  return {
    issuer,
    stop: () => new Promise((resolve) => {
      server.closeAllConnections();
      server.close(() => resolve());
    })
  };
};

// identity/src/main.ts
var wanted = (name) => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set`);
  return value;
};
var known = new Set(signIns.map(({ email }) => email));
var provider = await startIdentityProvider({
  port: Number(wanted("IDENTITY_PORT")),
  clientId: wanted("OIDC_CLIENT_ID"),
  clientSecret: wanted("OIDC_CLIENT_SECRET"),
  redirectUri: wanted("IDENTITY_REDIRECT"),
  people: [
    ...signIns.map(({ email, name }) => ({ email, name, groups: [] })),
    ...instructors.filter(({ email }) => !known.has(email)).map((person) => ({ ...person, groups: ["faculty"] })),
    { email: "oyun.tselmeg@kestrelsound.example", name: "Oyun Tselmeg", groups: ["course-design"] },
    { email: "guest@kestrelsound.example", name: "A guest", groups: [] }
  ]
});
console.log(JSON.stringify({ listening: Number(new URL(provider.issuer).port) }));
var stop = () => void provider.stop().then(() => process.exit(0));
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
