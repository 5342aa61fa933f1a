/**
 * Small line drawings of the choices of observations, 48 × 32, by observation and choice. `s` is steel cut
 * through, `r` rubber, `l` a line, `d` a dashed line, `o` oil.
 */
export interface Stroke {
  kind: 's' | 'r' | 'l' | 'd' | 'o'
  d: string
}

const s = (d: string): Stroke => ({ kind: 's', d })
const r = (d: string): Stroke => ({ kind: 'r', d })
const l = (d: string): Stroke => ({ kind: 'l', d })
const d = (path: string): Stroke => ({ kind: 'd', d: path })
const o = (path: string): Stroke => ({ kind: 'o', d: path })

const CAN = 'M14 30V7q0-4 4-4h12q4 0 4 4v23'
const GROOVE = 'M4 12h12v10h16V12h12v16H4Z'
const PLATE = 'M4 8h14v4H4ZM30 8h14v4H30Z'
const TUBE = 'M14 4h20M14 28h20M14 4v24M34 4v24'
const DISC = 'M17 12h14v3H17Z'
const COIL = 'M18 15l12 2-12 3 12 3-12 3 12 2'
const SEAT = 'M6 8h11v4H6ZM31 8h11v4H31Z'
const PLEATS = 'M6 26L11 6l5 20 5-20 5 20 5-20 5 20 5-20'
const ROUND_CORE = 'M14 6q10-4 20 0M14 26q10 4 20 0M14 6v20M34 6v20'
const NEST = 'M10 3v26M38 3v26M10 29h28'

/** A strip of rubber between two fingers. */
const FEEL: Record<string, readonly Stroke[]> = {
  soft: [r('M6 20h12q6-8 12 0h12v4H30q-6-8-12 0H6Z'), l('M24 3v9M21 9l3 3 3-3')],
  pliable: [r('M12 28V14q0-8 12-8t12 8v14h-5V15q0-4-7-4t-7 4v13Z')],
  hardened: [r('M6 20q18-7 36 0v5q-18-7-36 0Z'), l('M24 4v8M21 9l3 3 3-3')],
  brittle: [r('M6 18l16-4-3 6-13 3ZM42 18l-16-4 3 6 13 3Z'), l('M22 6l3 4-3 3 4 4')],
}
const HAND = 'M4 12l7 4-7 4M44 12l-7 4 7 4'
const SQUEEZE: Record<string, readonly Stroke[]> = {
  holds: [l('M14 5h20v22H14Z'), l(HAND)],
  gives: [l('M14 5q4 11 0 22M34 5q-4 11 0 22M14 5h20M14 27h20'), d('M14 5v22M34 5v22'), l(HAND)],
  collapses: [l('M14 5l8 11-8 11M34 5l-8 11 8 11M14 5h20M14 27h20'), l('M3 12l12 4-12 4M45 12l-12 4 12 4')],
}

export const OBSERVATION_PICTURES: Record<string, Record<string, readonly Stroke[]>> = {
  'can.grip': {
    plain: [l(CAN)],
    fluted: [l(CAN), l('M17 4v11M21 3v12M25 3v12M30 4v11')],
    coated: [l(CAN), l('M17 18h.1M21 16h.1M25 18h.1M29 16h.1M18 22h.1M22 21h.1M27 22h.1M31 20h.1M19 26h.1M25 26h.1M30 25h.1')],
  },
  'can.picture_on_box': {
    'same part': [l('M6 6h16v22H6Z'), l('M10 25V12q0-2 2-2h4q2 0 2 2v13'), l('M30 25V12q0-2 2-2h4q2 0 2 2v13'), l('M25 16h2M25 19h2')],
    'another part': [l('M6 6h16v22H6Z'), l('M10 25V12q0-2 2-2h4q2 0 2 2v13'), l('M29 25v-7q0-2 2-2h8q2 0 2 2v7'), l('M24 21l3-8')],
    'no picture': [l('M6 6h16v22H6Z'), l('M11 14q0-3 3-3t3 3q0 2-3 4v1M14 23h.1')],
  },
  'gasket.section': {
    square: [s(GROOVE), r('M17 7h14v14H17Z')],
    'captured lip': [s('M4 12h12v3h3v-3l-3-2v-2h3M44 12H32v-2'), s(GROOVE), r('M17 8h14v6h3v3h-3v5H17v-5h-3v-3h3Z')],
    rounded: [s(GROOVE), r('M24 6a8 8 0 0 1 0 16a8 8 0 0 1 0-16Z')],
  },
  'gasket.rubber': {
    nitrile: [r('M8 16a16 10 0 1 1 32 0a16 10 0 1 1-32 0M15 16a9 5 0 1 0 18 0a9 5 0 1 0-18 0')],
    silicone: [o('M8 16a16 10 0 1 1 32 0a16 10 0 1 1-32 0M15 16a9 5 0 1 0 18 0a9 5 0 1 0-18 0')],
    acrylic: [r('M8 16a16 10 0 1 1 32 0a16 10 0 1 1-32 0M15 16a9 5 0 1 0 18 0a9 5 0 1 0-18 0'), l('M13 10q6-4 13-3')],
  },
  'gasket.pull_out': {
    'falls out': [s('M6 4h8v8h20V4h8v4H6Z'), r('M15 20h18v7H15Z'), l('M24 13v5M22 16l2 2l2-2')],
    'by finger': [s('M6 18h8v8h20v-8h8v10H6Z'), r('M15 16h18v9H15Z'), l('M20 3v9q0 3 3 3t3-3V3')],
    'needs a tool': [s('M6 18h8v8h20v-8h8v10H6Z'), r('M15 17h18v8H15Z'), l('M40 3L29 15q-2 2-3 4')],
  },
  'thread.cut_quality': {
    clean: [s('M6 4l5 4-5 4 5 4-5 4 5 4-5 4H2V4ZM42 4l-5 4 5 4-5 4 5 4-5 4 5 4h4V4Z')],
    burred: [s('M6 4l5 4-5 4 5 4-5 4 5 4-5 4H2V4ZM42 4l-5 4 5 4-5 4 5 4-5 4 5 4h4V4Z'), l('M11 8q4-2 5 1M37 16q-4-3-6 0M11 24q3 3 5 1')],
    shallow: [s('M8 4l2 2v4l-2 2 2 2v4l-2 2 2 2v4l-2 2H2V4ZM40 4l-2 2v4l2 2-2 2v4l2 2-2 2v4l2 2h6V4Z')],
  },
  'anti_drain.material': {
    silicone: [s(PLATE), o('M18 14h12l10 6q1 3-2 3l-9-4H19l-9 4q-3 0-2-3Z')],
    nitrile: [s(PLATE), r('M18 14h12l10 6q1 3-2 3l-9-4H19l-9 4q-3 0-2-3Z')],
    thermoplastic: [s(PLATE), l('M18 14h12l10 6v3h-3l-8-4H19l-8 4H8v-3ZM20 14v5M24 14v5M28 14v5')],
  },
  'anti_drain.hole_cover': {
    'covers all': [s('M4 8h8v4H4ZM16 8h16v4H16ZM36 8h8v4h-8Z'), r('M6 13h36v3H6Z')],
    'covers some': [s('M4 8h8v4H4ZM16 8h16v4H16ZM36 8h8v4h-8Z'), r('M15 13h27v3H15Z'), o('M14 6v14M12 17l2 3 2-3')],
    'stands off': [s('M4 8h8v4H4ZM16 8h16v4H16ZM36 8h8v4h-8Z'), r('M18 13h12l12 7-1 3-12-6H19L7 23l-1-3Z')],
  },
  'anti_drain.memory': {
    'springs back': [r('M8 8h32v3H8Z'), l('M14 24v-9M11 18l3-3 3 3M34 24v-9M31 18l3-3 3 3')],
    'creeps back': [r('M8 14q16-9 32 0v3q-16-9-32 0Z'), d('M8 8h32'), l('M24 24v-5M22 21l2-2 2 2')],
    'stays open': [r('M8 22q16-18 32 0l-3 2q-13-15-26 0Z'), d('M8 8h32')],
  },
  'tube.seen': {
    'steel, round holes': [l(TUBE), l('M18 9h.1M24 9h.1M30 9h.1M21 14h.1M27 14h.1M18 19h.1M24 19h.1M30 19h.1M21 24h.1M27 24h.1')],
    'steel, louvres': [l(TUBE), l('M17 9h5M26 9h5M17 14h5M26 14h5M17 19h5M26 19h5M17 24h5M26 24h5')],
    'plastic cage': [l(TUBE), l('M20 4v24M28 4v24M14 12h20M14 20h20')],
    none: [d(TUBE), l('M18 6l2 20M22 6l2 20M26 6l2 20M30 6l1 20')],
  },
  'bypass.seen': {
    'at the thread end': [l(NEST), s('M4 3h14v3H4ZM30 3h14v3H30Z'), r('M18 8h12v3H18Z'), l('M20 11l8 2-8 2 8 2')],
    'at the dome end': [l(NEST), s('M4 3h14v3H4ZM30 3h14v3H30Z'), r('M18 21h12v3H18Z'), l('M20 24l8 1.6-8 1.6 8 1.6')],
    'not seen': [l(NEST), s('M4 3h14v3H4ZM30 3h14v3H30Z'), l('M21 13q0-3 3-3t3 3q0 2-3 4v1M24 22h.1')],
  },
  'can.damage': {
    none: [l(CAN)],
    'by cutting': [l('M14 30V17M34 17v13M14 7q0-4 4-4h12q4 0 4 4M14 7v4M34 7v4'), l('M10 14l6-3 4 4 5-4 5 4 4-3 5 2')],
    'in service': [l('M14 30V20q3-3 0-6V7q0-4 4-4h12q4 0 4 4v23'), d('M22 10l3 6-2 5 3 6')],
  },
  'plate.fixing': {
    welded: [s('M4 14h40v5H4Z'), o('M8 14q3-6 6 0ZM34 14q3-6 6 0Z'), l('M4 8h3M41 8h3')],
    glued: [s('M4 16h40v5H4Z'), o('M4 11h40v4H4Z')],
    'folded tabs': [s('M8 14h32v5H8Z'), s('M4 22V10h8v3H7v9ZM44 22V10h-8v3h5v9Z')],
  },
  'anti_drain.fit': {
    snug: [s(PLATE), r('M18 13h12l11 5v2l-11-3H18L7 20v-2Z')],
    loose: [s(PLATE), r('M18 18h12l11 5v2l-11-3H18L7 25v-2Z'), l('M14 13v4M34 13v4')],
    creased: [s(PLATE), r('M18 13h12l5 3 2 4 4-1v2l-6 2-5-6H18L7 20v-2Z')],
  },
  'bypass.location': {
    'at the dome end': [l(NEST), r('M18 21h12v3H18Z'), l('M20 24l8 1.6-8 1.6 8 1.6')],
    'at the thread end': [l(NEST), r('M18 6h12v3H18Z'), l('M20 9l8 2-8 2 8 2')],
    'in the block': [l('M4 4h40v10H4Z'), r('M10 6h8v3h-8Z'), l('M11 9l6 2-6 2M14 14v14h20V14')],
    'in the adapter': [l('M4 3h40v5H4ZM10 8h28v8H10ZM14 16v13h20V16'), r('M13 10h8v2h-8Z'), l('M14 12l6 1.5-6 1.5')],
    'there is none': [l(NEST), d('M18 12h12M20 16h8')],
    'in the housing': [l('M8 29V9h32v20M8 4h32v5H8Z'), r('M32 6h6v3h-6Z'), l('M15 13h14v13H15Z')],
  },
  'bypass.kind': {
    'coil spring': [s(SEAT), r(DISC), l(COIL)],
    'leaf spring': [s(SEAT), r(DISC), l('M8 24q16-14 32 0M24 15v3')],
    flap: [s(SEAT), r('M14 13q14 1 20 9l-2 2q-7-8-18-8Z')],
    combined: [s(SEAT), r('M10 13h28l4 7-3 1-4-4H13l-4 4-3-1ZM19 17h10v7H19Z')],
  },
  'bypass.spring_material': {
    'music wire': [l(COIL), l('M36 8v6M33 11h6')],
    stainless: [o('M18 7l12 2-12 3 12 3-12 3 12 3-12 3 12 2-12 2 12-1-12-2 12-2-12-3 12-2-12-3 12-3-12-2Z')],
    'chrome silicon': [r('M18 7l12 2-12 3 12 3-12 3 12 3-12 3 12 2-12 2 12-1-12-2 12-2-12-3 12-2-12-3 12-3-12-2Z')],
  },
  'bypass.spring_ends': {
    open: [l('M18 4l12 4-12 4 12 4-12 4 12 4-12 4')],
    closed: [l('M18 5l12 1-12 2 12 5-12 5 12 5-12 2 12 1')],
    'closed and ground': [l('M17 4h14M18 6l12 2-12 5 12 5-12 5 12 2M17 28h14')],
    'cannot be told': [d('M18 4l12 2-12 2'), l('M30 13l-12 5 12 5'), d('M30 23l-12 2 12 2')],
  },
  'bypass.seat_mark': {
    'on the inner edge': [s(SEAT), r('M14 5l4 3h12l4-3v4H14Z'), l('M17 19v-5M31 19v-5')],
    'on the outer edge': [s(SEAT), r('M5 5h38v3H5Z'), l('M7 19v-5M41 19v-5')],
    'none to be seen': [s(SEAT), r('M12 5h24v3H12Z'), d('M12 19v-5M36 19v-5')],
  },
  'bypass.seal': {
    rubber: [s(SEAT), r('M15 12h18v3H15Z'), s('M17 15h14v3H17Z')],
    'metal on metal': [s(SEAT), s('M15 12h18v4H15Z')],
    plastic: [s(SEAT), o('M15 12h18v5H15Z')],
  },
  'bypass.screen': {
    none: [s(SEAT), d('M17 10h14')],
    mesh: [s(SEAT), l('M17 6q7 10 14 0M19 7v4M22 9v4M26 9v4M29 7v4M18 9h12')],
    'perforated plate': [s(SEAT), s('M17 4h3v3h-3ZM22 4h4v3h-4ZM28 4h3v3h-3Z')],
  },
  'seating.kind': {
    'coil spring': [l('M8 30V10q16-12 32 0v20'), l('M16 12l16 2-16 3 16 3-16 2'), s('M12 24h24v3H12Z')],
    'leaf spring': [l('M8 30V10q16-12 32 0v20'), l('M12 16q12 10 24 0M24 21v3'), s('M12 24h24v3H12Z')],
    none: [l('M8 30V10q16-12 32 0v20'), s('M12 12h24v3H12Z')],
  },
  'element.end_caps': {
    metal: [s('M4 6h40v3H4Z'), s('M4 6h3v6H4ZM41 6h3v6h-3Z'), l(PLEATS)],
    fibre: [o('M4 4h40v5H4Z'), l(PLEATS)],
    plastic: [r('M4 4h40v4H4ZM4 8h2v4H4ZM42 8h2v4h-2Z'), l(PLEATS)],
    none: [d('M4 6h40'), l(PLEATS)],
  },
  'element.glue': {
    even: [o('M4 4h40v7H4Z'), l(PLEATS)],
    'in globs': [o('M4 4h12q3 12-6 10T4 4ZM26 4h14q0 10-8 8t-6-8Z'), l(PLEATS)],
    missing: [o('M4 4h14v7H4ZM32 4h12v7H32Z'), d('M18 4v7M32 4v7'), l(PLEATS)],
  },
  'element.seam': {
    clamped: [l('M4 26l6-18 6 14h4M44 26l-6-18-6 14h-4'), s('M19 14h10v12H19Z')],
    glued: [l('M4 26l6-18 6 16h9M44 26l-6-18-6 12h-9'), o('M20 20h8v4h-8Z')],
    pressed: [l('M4 26l6-18 6 14h16l6-14 6 18'), l('M20 19v6M24 19v6M28 19v6')],
  },
  'element.spacing': {
    even: [l(PLEATS)],
    bunched: [l('M5 26L8 6l3 20 3-20 3 20M30 26l3-20 3 20 3-20 3 20')],
    touching: [l('M6 26l3-20 3 20 3-20 3 20 3-20 3 20 3-20 3 20 3-20 3 20 3-20 3 20')],
  },
  'element.spacer': {
    none: [l('M8 29V9q16-10 32 0v20'), l('M14 12h20v16H14Z')],
    plastic: [l('M8 29V9q16-10 32 0v20'), l('M14 18h20v10H14Z'), o('M16 11h16v6H16Z')],
    steel: [l('M8 29V9q16-10 32 0v20'), l('M14 18h20v10H14Z'), s('M16 10h16v7h-3v-4H19v4h-3Z')],
  },
  'element.damage': {
    none: [l(PLEATS)],
    'by cutting': [l(PLEATS), l('M4 10l8-2 6 3 8-3 8 3 10-3')],
    'in service': [l('M6 26l5-20 5 20q6-2 4-9t6 9l5-20 5 20 5-20')],
  },
  'tube.material': {
    steel: [s('M14 4h3v24h-3ZM31 4h3v24h-3Z'), l('M14 4h20M14 28h20')],
    plastic: [o('M13 4h5v24h-5ZM30 4h5v24h-5Z'), l('M18 9h12M18 16h12M18 23h12')],
    none: [d('M14 4h20v24H14Z')],
  },
  'tube.form': {
    helical: [l(ROUND_CORE), l('M14 14l20-6M14 21l20-6M14 27l20-6')],
    axial: [l(ROUND_CORE), l('M23 5v22M25 5v22')],
    welded: [l(ROUND_CORE), l('M24 5v3M24 10v3M24 15v3M24 20v3M24 25v2')],
    moulded: [l(ROUND_CORE), l('M14 12h20M14 20h20M20 5v22M28 5v22')],
  },
  'tube.openings': {
    holes: [l(ROUND_CORE), l('M19 11a2 2 0 1 0 .1 0M29 11a2 2 0 1 0 .1 0M24 16a2 2 0 1 0 .1 0M19 21a2 2 0 1 0 .1 0M29 21a2 2 0 1 0 .1 0')],
    louvres: [l(ROUND_CORE), l('M17 11h6M26 11h6M17 16h6M26 16h6M17 21h6M26 21h6')],
    windows: [l(ROUND_CORE), o('M17 9h6v5h-6ZM26 9h6v5h-6ZM17 18h6v5h-6ZM26 18h6v5h-6Z')],
  },
  'tube.burr_side': {
    'away from the media': [s('M20 3h4v9h-4ZM20 20h4v9h-4Z'), l('M20 12l-4 2M20 20l-4-2'), o('M26 3h5v26h-5Z')],
    'towards the media': [s('M20 3h4v9h-4ZM20 20h4v9h-4Z'), l('M24 12l4 2M24 20l4-2'), o('M26 3h5v26h-5Z')],
    none: [s('M20 3h4v9h-4ZM20 20h4v9h-4Z'), o('M26 3h5v26h-5Z')],
  },
  'media.family': {
    cellulose: [l('M6 8q12 6 36 2M6 14q18-4 36 3M6 20q14 6 36-1M8 26q16-5 32 0')],
    blend: [l('M6 8q12 6 36 2M6 20q14 6 36-1'), l('M8 27L26 5M22 28L40 6M10 12l30 12')],
    synthetic: [l('M6 6l36 6M6 14l36-8M6 22l36-6M6 28l36-4M10 4l8 25M24 4l2 25M36 4l-6 25')],
  },
  'media.backing': {
    none: [l(PLEATS)],
    'wire mesh': [l(PLEATS), d('M8 28l5-20 5 20 5-20 5 20 5-20 5 20')],
    'polymer net': [l(PLEATS), o('M8 29l5-20 2 0-5 20ZM18 29l5-20 2 0-5 20ZM28 29l5-20 2 0-5 20Z')],
  },
  'media.look': {
    'coarse, uneven': [r('M5 8q14 8 38 2v3q-24 6-38-2ZM5 20q16-6 38 2v2q-22-6-38 0Z')],
    'fine among coarse': [r('M5 10q14 8 38 2v3q-24 6-38-2Z'), l('M6 26L30 5M20 28L42 8M8 20l32 6')],
    'fine, even': [l('M6 6l36 6M6 14l36-8M6 22l36-6M6 28l36-4M10 4l8 25M24 4l2 25M36 4l-6 25')],
    'two layers': [r('M5 6q14 6 38 1v3q-24 5-38-1Z'), l('M4 16h40M6 20l36 6M6 27l36-5M14 18l4 11M32 18l-5 11')],
  },
  'media.condition': {
    none: [l('M6 5h36v22H6Z')],
    'by cutting': [l('M6 5h36v22H6Z'), l('M6 14l8 3-8 3')],
    'worn at the tube': [l('M6 5h36v22H6Z'), d('M16 7v18M24 7v18M32 7v18')],
    holed: [l('M6 5h36v22H6Z'), o('M22 15a3 2.4 0 1 0 .1 0ZM31 10a2 2 0 1 0 .1 0Z')],
  },
  'can.delivered': {
    sound: [l(CAN), l('M19 18l4 4 7-9')],
    dents: [l('M14 30V20q5-3 0-7V7q0-4 4-4h3q3 5 6 0h3q4 0 4 4v23')],
    rust: [l(CAN), o('M17 12q4-4 7 0t5 4-4 5-8-2-2-7Z')],
    'stray glue': [s('M6 10h36v4H6Z'), o('M18 14h5q0 9-2.5 9T18 14ZM29 14h4q0 6-2 6t-2-6Z')],
    'loose chips': [l('M6 26h36'), l('M12 22l4-3-1 4M22 23l5-6 1 5M33 21l3 2 2-4M18 12l3 3M28 10l-2 4')],
    'open box': [l('M10 12h28v16H10ZM10 12l-5-6h12l7 6 7-6h12l-5 6')],
  },
  'can.squeeze': {
    holds: [...SQUEEZE.holds!],
    gives: [...SQUEEZE.gives!],
    collapses: [...SQUEEZE.collapses!],
  },
  'gasket.feel': {
    soft: [...FEEL.soft!],
    pliable: [...FEEL.pliable!],
    hardened: [...FEEL.hardened!],
    brittle: [...FEEL.brittle!],
  },
  'gasket.fit': {
    snug: [s(GROOVE), r('M16.5 8h15v14h-15Z')],
    loose: [s(GROOVE), r('M19 12h9v10h-9Z'), l('M17 8h3M28 8h3')],
    stretched: [s(GROOVE), r('M12 6h24v4H12ZM19 10h10v8H19Z')],
  },
  'plate.play': {
    keyed: [l('M8 16a16 12 0 1 1 32 0a16 12 0 1 1-32 0'), s('M21 3h6v7h-6Z')],
    tight: [l('M8 16a16 12 0 1 1 32 0a16 12 0 1 1-32 0'), s('M12 16a12 9 0 1 1 24 0a12 9 0 1 1-24 0')],
    rattles: [l('M8 16a16 12 0 1 1 32 0a16 12 0 1 1-32 0'), l('M15 12q4-5 10-4M33 20q-4 5-10 4M22 5l3 3-3 3M26 27l-3-3 3-3')],
  },
  'anti_drain.feel': {
    soft: [...FEEL.soft!],
    pliable: [...FEEL.pliable!],
    hardened: [...FEEL.hardened!],
    brittle: [...FEEL.brittle!],
  },
  'seating.washer': {
    none: [l('M16 6l16 2-16 3 16 3-16 2'), o('M10 22h28v5H10Z')],
    'steel washer': [l('M16 4l16 2-16 3 16 3-16 2'), s('M12 17h24v3H12Z'), o('M10 22h28v5H10Z')],
    'plastic washer': [l('M16 4l16 2-16 3 16 3-16 2'), r('M12 17h24v3H12Z'), o('M10 22h28v5H10Z')],
  },
  'element.squeeze': {
    holds: [...SQUEEZE.holds!],
    gives: [...SQUEEZE.gives!],
    collapses: [...SQUEEZE.collapses!],
  },
  'tube.squeeze': {
    holds: [...SQUEEZE.holds!],
    gives: [...SQUEEZE.gives!],
    collapses: [...SQUEEZE.collapses!],
  },
}
