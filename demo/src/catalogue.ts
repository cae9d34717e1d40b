/** The college's courses and the topics of their weeks. */
export const departments: Readonly<Record<string, string>> = {
  NAV: 'Navigation', MEN: 'Marine Engineering', HOP: 'Harbour Operations', OSC: 'Ocean Science', GAL: 'Galley & Provisions', SAF: 'Safety & Survival',
}

export const catalogue: readonly { code: string; title: string; weeks: 16 | 8 }[] = [
  { code: 'NAV 110', title: 'Coastal Navigation', weeks: 16 }, { code: 'NAV 120', title: 'Radar and Plotting', weeks: 16 }, { code: 'NAV 140', title: 'Chartwork Studio', weeks: 16 },
  { code: 'NAV 205', title: 'Celestial Fixes', weeks: 16 }, { code: 'NAV 220', title: 'Bridge Watchkeeping', weeks: 16 }, { code: 'NAV 260', title: 'Ice Navigation', weeks: 16 },
  { code: 'MEN 120', title: 'Diesel Propulsion I', weeks: 16 }, { code: 'MEN 125', title: 'Diesel Propulsion II', weeks: 16 }, { code: 'MEN 150', title: 'Pumps and Piping', weeks: 16 },
  { code: 'MEN 230', title: 'Refrigeration Afloat', weeks: 16 }, { code: 'MEN 245', title: 'Shipboard Electrics', weeks: 16 }, { code: 'MEN 270', title: 'Hull Maintenance', weeks: 16 },
  { code: 'HOP 130', title: 'Cargo Handling', weeks: 16 }, { code: 'HOP 160', title: 'Mooring and Tugs', weeks: 8 }, { code: 'HOP 215', title: 'Pilotage & Port Law', weeks: 16 },
  { code: 'HOP 240', title: 'Dredging & Survey', weeks: 16 }, { code: 'HOP 255', title: 'Customs Papers', weeks: 8 },
  { code: 'OSC 101', title: 'Tides & Currents', weeks: 16 }, { code: 'OSC 115', title: 'Weather at Sea', weeks: 16 }, { code: 'OSC 205', title: 'Plankton Methods', weeks: 16 },
  { code: 'OSC 240', title: 'Sea Ice', weeks: 16 }, { code: 'OSC 260', title: 'Seabed Mapping', weeks: 16 },
  { code: 'GAL 115', title: 'Provisioning at Sea', weeks: 16 }, { code: 'GAL 130', title: 'Bread & Long Stores', weeks: 8 }, { code: 'GAL 210', title: 'Galley Sanitation', weeks: 16 },
  { code: 'GAL 225', title: 'Menus for Heavy Weather', weeks: 8 },
  { code: 'SAF 100', title: 'Basic Safety', weeks: 16 }, { code: 'SAF 150', title: 'Liferaft & Flare Drill', weeks: 8 }, { code: 'SAF 175', title: 'First Aid Afloat', weeks: 8 },
  { code: 'SAF 210', title: 'Fire Party Lead', weeks: 16 }, { code: 'SAF 230', title: 'Man Overboard', weeks: 8 },
]

const topicsOf: Readonly<Record<string, readonly string[]>> = {
  NAV: ['Charts and scales', 'Position lines', 'The compass', 'Variation and deviation', 'Tidal heights', 'Tidal streams', 'Leading marks', 'Buoys and lights', 'Pilotage plans', 'Night passages', '', 'Fog', 'Radar ranges', 'Passage planning', 'A day at sea', 'The long passage'],
  MEN: ['Safety in the engine room', 'Fuel systems', 'Injection', 'Cooling water', 'Lubrication', 'Compressors', 'Condensers', 'Shaft and stern gear', 'Governors', 'Alarms', '', 'Fault finding', 'Logs and spares', 'Vibration', 'Overhaul', 'Trials'],
  HOP: ['The port at work', 'Berths and depths', 'Lines and winches', 'Stowage', 'Dangerous goods', 'Papers', 'Tugs', 'Pilots', 'Dredged channels', 'Port law', '', 'Weather windows', 'Heavy lifts', 'Accidents', 'A ship turned round', 'Review'],
  OSC: ['Water and salt', 'Heat', 'Waves', 'Tide makers', 'Harmonics', 'Currents', 'Mixing', 'Plankton', 'Light under water', 'Ice forms', '', 'Drift', 'Sampling', 'Making a record', 'Reading a record', 'Reports'],
  GAL: ['Stores and shelf life', 'The cold room', 'Clean hands', 'Water on board', 'Bread', 'Stocks', 'Menus', 'Allergies', 'Heavy weather', 'Waste', '', 'Budgets', 'Ordering ahead', 'A week of meals', 'Feast day', 'Inspection'],
  SAF: ['The muster list', 'Alarms', 'Lifejackets', 'Liferafts', 'Flares', 'Cold water', 'Fire triangle', 'Breathing gear', 'Search patterns', 'First aid', '', 'Abandon ship', 'Rescue boats', 'Drills', 'The debrief', 'Assessment'],
}

/** Topics of a course's weeks, by week number; the pause has none. */
export const topicsFor = (code: string, weeks: number): Record<string, string> =>
  Object.fromEntries((topicsOf[code.slice(0, 3)] ?? []).slice(0, weeks).map((topic, i) => [String(i + 1), topic || (weeks === 8 ? 'Review' : '')]).filter(([, topic]) => topic !== ''))
