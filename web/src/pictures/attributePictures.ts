/**
 * Small line drawings of the choices of attributes, 48 × 32, by attribute and choice. `s` is steel cut
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
const NEST = 'M10 3v26M38 3v26M10 29h28'

export const ATTRIBUTE_PICTURES: Record<string, Record<string, readonly Stroke[]>> = {
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
}
