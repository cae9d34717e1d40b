/** Cases on which colleges differ, and how the rules read them; what one rule leaves out stands with the rule. */
export const decisions: readonly { of: string; reading: string }[] = [
  {
    of: 'Two breaks that adjoin, or a break and a holiday, leave a week without a class.',
    reading:
      'The week is a break’s week and bears the names of all of them. Holidays alone make no break: their week is taught on what is left of it.',
  },
  {
    of: 'A class meets on the Saturday of a week whose Monday to Friday is a break.',
    reading:
      'The week is a break’s week for the whole college: no module, no number, nothing due. Whoever meets on that Saturday has the term’s break end earlier, or gives the day as one of its other dates.',
  },
  {
    of: 'A module’s objective is assessed only through an objective of one of its pages.',
    reading: 'It is assessed: what serves it counts for it, at any remove.',
  },
  {
    of: 'The only work that assesses an outcome does not apply to a course’s variant.',
    reading:
      'Nothing is told of the course, whose instructor cannot help it; the template is the place to see to it.',
  },
  {
    of: 'A page that students need links to parts that are hidden.',
    reading:
      'Opening the page opens nothing else. The links are told for what they are; whoever hid those parts decides.',
  },
  {
    of: 'An instructor adds a discussion that is neither graded nor due.',
    reading: 'It is talk and no work: the list of work does not ask for it.',
  },
  {
    of: 'An instructor adds an assignment without a due date.',
    reading:
      'Whether it has one is theirs to decide, and nothing is told. The list of work asks for its line, where it can be told which list.',
  },
  {
    of: 'The syllabus is a page of twenty words.',
    reading:
      'It is told, unless it leads to a file: sixty words, or what the template sets, make a page the syllabus itself.',
  },
  {
    of: 'The weeks of a course stand in units.',
    reading:
      'Where every unit says what it covers, the units are held to the template’s format, and weeks that none of them covers are a missing unit. Where that cannot be read, one question is asked, and names, dates, places and lists of work are not told beside it.',
  },
  {
    of: 'Two modules of a course are called “Weeks 4 and 5” and “Weeks 7 and 8”; all other weeks stand alone.',
    reading:
      'Where at least half of the weeks stand alone they are weeks that were folded together, and of each it is told that the second has no module of its own. Called a unit, or among few weeks that stand alone, they are units beside weeks.',
  },
  {
    of: 'A page bears the name of the next week’s page, which is gone.',
    reading:
      'Links decide: where pages beside it lead to it, or it leads to what stands beside it, it is its own week’s page under a wrong name. Where nothing ties it to where it stands, it is the next week’s page, moved.',
  },
  {
    of: 'A module carries the number of another.',
    reading:
      'What it holds, its dates and its topic outweigh a digit: it is the module that it is, under a wrong number.',
  },
]
