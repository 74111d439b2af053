/** Components as they are drawn: rendered to text by Vue's own server renderer, read as a user reads them. */
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import { describe, expect, it } from 'vitest'
import { createSSRApp, type Component } from 'vue'
import { renderToString } from 'vue/server-renderer'

import type { Finding, Ladder, Lead, LeadPicture, Rung, Track, MatchingOption } from '@/api/client'
import LadderChart from '@/ui/LadderChart.vue'
import LadderUpright from '@/ui/LadderUpright.vue'
import ControlGroups from '@/ui/ControlGroups.vue'
import RungAccount from '@/ui/RungAccount.vue'
import type { Overlay } from '@/ui/ladderShape'
import NoiseList from '@/features/levels/NoiseList.vue'
import OptionsTable from '@/features/levels/OptionsTable.vue'
import LeadSegment from '@/features/runs/LeadSegment.vue'
import TrackRow from '@/features/runs/TrackRow.vue'
import ControlField from '@/ui/ControlField.vue'
import FindingCard from '@/ui/FindingCard.vue'
import LeadDrawing from '@/ui/LeadDrawing.vue'
import LeadUse from '@/ui/LeadUse.vue'
import RunTag from '@/ui/RunTag.vue'
import SeverityMark from '@/ui/SeverityMark.vue'

async function html(component: Component, props: Record<string, unknown>): Promise<string> {
  return renderToString(createSSRApp(component, props).use(createPinia()).use(PrimeVue))
}
const words = (markup: string) =>
  markup
    .replace(/<!--[\s\S]*?-->/g, '')
    .replace(/<style[\s\S]*?<\/style>|<[^>]+>/g, ' ')
    .replace(/&#39;/g, "'")
    .replace(/\s+/g, ' ')
    .trim()

const lead = (more: Partial<Lead> = {}): Lead => ({
  run: 'run-14',
  number: 14,
  tape: ['brown', 'yellow'],
  label: '3 m 3.5 mm TRS',
  parts: ['3.5 mm TRS'],
  length_m: 3,
  plugs: '3.5 mm TRS',
  inside: '',
  wireless: false,
  ...more,
})

const track = (more: Partial<Track> = {}): Track => ({
  id: 'cam.L',
  bus: 'L',
  bus_label: 'L',
  sources: ['Founder', 'Bell'],
  others: 1,
  stops: [
    { device: 'bag', label: 'Bag recorder', detail: 'line out · 0 dB' },
    { device: 'cam', label: 'Camera B', detail: 'mic socket · +1.5 dB' },
  ],
  leads: [lead()],
  average_dbfs: -1.2,
  peak_dbfs: 0,
  noise_dbfs: -24,
  tolerance_db: 4.6,
  over_db: 12.84,
  miss_db: 10,
  ruled_by: 'room',
  provenance: 'typical',
  verdict: 'clips',
  severity: 'stop',
  ...more,
})

const finding = (more: Partial<Finding> = {}): Finding => ({
  id: 'f',
  rule: 'line-into-mic',
  severity: 'stop',
  title: 'Line into microphone input',
  text: 'It clips by 12.8 dB.',
  source: 'PRACTICE',
  source_words: 'common practice',
  verify: 'Send tone.',
  station: 'levels',
  device: 'cam',
  run: 'run-14',
  more_runs: [],
  track: '',
  measured_db: 12.8,
  tracks: [],
  has_inserted_devices: false,
  beneath: [],
  ...more,
})

const card = {
  finding: finding(),
  fixes: [
    { label: 'Use the 25 dB attenuator', steps: ['Cable 14 by the cable'], edits: [] },
    { label: 'Turn the output down', steps: ['bag line out'], edits: [] },
  ],
  isThinking: false,
}

describe('a severity', () => {
  it('has a shape of its own, so that colour is no more than a help', async () => {
    const shapes = await Promise.all(
      ['stop', 'caution', 'note'].map((severity) => html(SeverityMark, { severity })),
    )
    expect(shapes[0]).toContain('4.1,0 9.9,0')
    expect(shapes[1]).toContain('7,0.5')
    expect(shapes[2]).toContain('<circle')
  })
})

describe('a run tag', () => {
  it('shows digits and as many bands', async () => {
    const markup = await html(RunTag, { number: 14, tape: ['brown', 'yellow'] })
    expect(words(markup)).toBe('14')
    expect(markup.match(/class="band"/g)).toHaveLength(2)
    expect(markup).toContain('Cable 14, tape: brown, yellow')
  })
})

describe('a lead', () => {
  it('is a line with its caption; radio is dotted, a pad is drawn', async () => {
    const plain = await html(LeadSegment, { lead: lead(), lit: false, wrong: false })
    expect(words(plain)).toBe('Cable 14 3 m 3.5 mm TRS')
    expect(plain).not.toContain('stroke-dasharray')
    const radio = await html(LeadSegment, { lead: lead({ wireless: true }), lit: false, wrong: false })
    expect(radio).toContain('stroke-dasharray="2 5"')
    const pad = await html(LeadSegment, { lead: lead({ inside: '−25 dB' }), lit: true, wrong: true })
    expect(pad).toContain('class="pad"')
    expect(pad).toContain('lit wrong')
  })
})

describe('a row', () => {
  it('reads from source to verdict', async () => {
    const text = words(await html(TrackRow, { track: track(), chosen: false, litRun: '' }))
    expect(text).toBe(
      'L Bag recorder line out · 0 dB Cable 14 3 m 3.5 mm TRS Camera B mic socket · +1.5 dB + 1 more −1 ±5 0 clips by 12.8 dB',
    )
  })
  it('shows silence as a dash and no tolerance beside it', async () => {
    const silent = track({
      average_dbfs: null,
      peak_dbfs: null,
      over_db: null,
      others: 0,
      severity: null,
      verdict: 'silent',
    })
    const text = words(await html(TrackRow, { track: silent, chosen: true, litRun: '' }))
    expect(text).toMatch(/– – silent$/)
  })
})

describe('a finding', () => {
  it('says word, reason and fix; source, proof and key only when pointed at', async () => {
    const away = words(await html(FindingCard, { ...card, pointed: false, locked: false }))
    expect(away).toContain('stop: Line into microphone input It clips by 12.8 dB.')
    expect(away).toContain('Use the 25 dB attenuator')
    expect(away).toContain('1 other way')
    expect(away).not.toContain('common practice')
    const pointed = words(await html(FindingCard, { ...card, pointed: true, locked: false }))
    expect(pointed).toContain('To be sure: Send tone. Source: common practice')
    expect(pointed).toMatch(/Use the 25 dB attenuator a/)
  })
  it('offers no fix while an earlier state is looked at', async () => {
    expect(words(await html(FindingCard, { ...card, pointed: true, locked: true }))).not.toContain('Use the')
  })
})

const rung = (more: Partial<Rung>): Rung => ({
  kind: 'input',
  label: 'Camera B mic socket L',
  head: 'Camera B',
  tail: 'mic socket L',
  detail: '',
  device: 'cam',
  unit: 'dBu',
  quiet: -24,
  average: -10,
  peak: 4,
  burst: 14,
  noise: -60,
  ruled_by: 'room',
  ceiling: -10.5,
  over_db: 14.5,
  burst_over_db: null,
  dbu_offset: 0,
  begins: '',
  steps: [],
  controls: [],
  ...more,
})
const knob = {
  id: 'mic.mic.gain_db',
  device: 'cam',
  port: 'mic',
  label: 'gain',
  kind: 'knob' as const,
  value: 1.5,
  words: '+1.5 dB',
  options: [],
  minimum: 0,
  maximum: 46.5,
  step: 1.5,
  gives_db: null,
  mark: null,
}
const toggle = {
  ...knob,
  id: 'mic.auto.menu',
  label: 'automatic level',
  kind: 'switch' as const,
  value: true,
}
const choice = {
  ...knob,
  id: 'mic.mode',
  label: 'mode',
  kind: 'choice' as const,
  value: 'mic',
  options: [
    { value: 'mic', label: 'microphone' },
    { value: 'line', label: 'line' },
  ],
}

describe('the ladder', () => {
  const ladder = {
    title: 'Camera B, track L',
    rungs: [
      rung({}),
      rung({
        label: 'Camera B track L',
        head: 'Camera B',
        tail: 'track L',
        unit: 'dBFS',
        over_db: 0,
        burst_over_db: null,
        ceiling: 0,
        peak: 0,
        burst: 10,
        average: 0,
        dbu_offset: -10.5,
      }),
    ],
    target: { label: 'film', words: '', low_dbfs: -20, high_dbfs: -12, of_peaks: false },
  } as unknown as Ladder

  it('says by how much it clips, what rules the noise and where the target lies', async () => {
    const text = words(await html(LadderChart, { ladder }))
    expect(text).toContain('clips by 14.5 dB')
    expect(text).toContain('room')
    expect(text).toContain('film')
    expect(text).toContain('−10.0 dBu')
    expect(text).toContain('0.0 dBFS')
  })
  it('hatches only the stage that clips', async () => {
    expect((await html(LadderChart, { ladder })).match(/fill="url/g)).toHaveLength(1)
  })
  it('lays the same chain at other levels over it, by name', async () => {
    const other: Overlay = { label: 'as it was', ladder }
    expect(words(await html(LadderChart, { ladder, other }))).toContain('as it was')
  })
  it('stands upright where it is narrow, with what clips beside the name of the stage', async () => {
    const text = words(await html(LadderUpright, { ladder, width: 350 }))
    expect(text).toContain('clips by 14.5 dB')
    expect(text).toContain('−10.0 dBu')
  })
  it('accounts for every decibel of the stage that is pointed at', async () => {
    const steps = [{ what: 'gain', by_db: 1.5, tolerance_db: 0, provenance: '' }]
    const told = {
      ...ladder,
      rungs: [rung({}), rung({ label: 'Camera B track L', unit: 'dBFS', average: -8.5, steps })],
    }
    const text = words(await html(RungAccount, { ladder: told, pointed: 1 }))
    expect(text).toContain('Camera B mic socket L −10.0 dBu gain +1.5 −8.5 dBFS')
    const first = {
      ...ladder,
      rungs: [rung({ begins: 'Founder at 1 m, 66 dB SPL', unit: 'dB SPL', average: 66 })],
    }
    expect(words(await html(RungAccount, { ladder: first, pointed: 0 }))).toContain(
      'Founder at 1 m, 66 dB SPL',
    )
  })
  it('puts the knobs of a port first', async () => {
    const text = words(
      await html(ControlGroups, { rungs: [rung({ controls: [toggle, choice, knob] })], locked: false }),
    )
    expect(text.indexOf('gain')).toBeLessThan(text.indexOf('automatic level'))
    expect(text).toContain('Camera B mic socket L')
  })
})

describe('a control', () => {
  it('is a knob with its range, a switch or a list, each with its label', async () => {
    const markup = await html(ControlField, { control: knob })
    expect(markup).toMatch(/type="range" min="0" max="46.5" step="1.5"/)
    expect(words(markup)).toBe('gain +1.5 dB')
    const measured = { ...knob, gives_db: 1.9, mark: 3 }
    expect(words(await html(ControlField, { control: measured }))).toBe('gain +1.5 dB (mark 3, gives +1.9)')
    expect(await html(ControlField, { control: toggle })).toContain('type="checkbox"')
    expect(words(await html(ControlField, { control: choice }))).toBe('mode microphone line')
    for (const control of [knob, toggle, choice])
      expect(await html(ControlField, { control })).toContain(`for="${control.device}-${control.id}"`)
  })
})

describe('tables beside the ladder', () => {
  const option = {
    id: 'lead',
    label: 'Use the 25 dB attenuator',
    edits: [],
    needs: '1 lead',
    loses: '',
    average_dbfs: -20.3,
    peak_dbfs: -6.3,
    headroom_db: 6.3,
    noise_dbfs: -69.4,
    below_room_db: 18,
    risk: 'mark it',
    best_for: ['clean' as const],
    ruled_by: 'room',
    tolerance_db: 4.9,
    full_scale_margin_db: 4.9,
    clips: false,
    fits: true,
    verdict: 'fits',
  } satisfies MatchingOption

  it('say what each option gives, needs and takes away', async () => {
    const useless = {
      ...option,
      id: 'pad',
      label: 'Attenuator',
      clips: true,
      needs: '',
      loses: 'listening there',
      verdict: 'still clips',
    }
    const text = words(await html(OptionsTable, { options: [option, useless], locked: false }))
    expect(text).toContain('Use the 25 dB attenuator first where clean comes first −20 ±5 6.3 dB −69')
    expect(text).toContain('fits; room dominates. Needs 1 lead. Risk: mark it.')
    expect(text).toContain('still clips; room dominates. Takes away listening there.')
    expect(words(await html(OptionsTable, { options: [], locked: false }))).toContain(
      'No switch, trim or pad',
    )
  })
  it('list the noises with a true minus', async () => {
    const noises = [
      {
        name: 'room',
        level: -51.06,
        a_level: -54.05,
        born: 38,
        unit: 'dB SPL',
        is_room: true,
        words: 'the room itself',
      },
    ]
    const text = words(await html(NoiseList, { noises }))
    expect(text).toContain('room −54.0 −51.1 the room itself; 38.0 dB SPL where it comes in')
  })
})

describe('a lead opened', () => {
  const picture: LeadPicture = {
    label: 'XLR to 3.5 mm with 25 dB',
    length_m: 0.3,
    sending: 'XLR-3 female',
    receiving: '3.5 mm TRS male',
    near: [
      { name: '1', carries: 'screen' },
      { name: '2', carries: 'hot' },
      { name: '3', carries: 'cold' },
    ],
    far: [
      { name: 'T', carries: 'left hot' },
      { name: 'R', carries: 'right hot' },
      { name: 'S', carries: 'screen' },
    ],
    wiring: {
      wires: [
        { near: '1', far: 'S', ohm: 0, blocks_dc: false },
        { near: '2', far: 'T', ohm: 4700, blocks_dc: true },
      ],
      bridges: [{ end: 'receiving', first: 'T', second: 'R', ohm: 0 }],
      windings: [],
    },
  }

  it('draws a line for each core, what lies in it, and says it in words', async () => {
    const drawn = await html(LeadDrawing, { picture })
    expect(drawn).toContain('2 to T through 4.7 kΩ')
    expect(drawn).toContain('T and R joined at the receiving end')
    expect(drawn.match(/<line/g)).toHaveLength(2)
    expect(drawn).toContain('class="screen"')
  })

  it('says what each side hears and what is wrong', async () => {
    const use = {
      between: 'floating balanced output into a stereo socket',
      hears: [
        { channel: 'left', words: 'the signal, −6.2 dB' },
        { channel: 'right', words: 'the signal inverted, −6.2 dB' },
      ],
      mono: 'summed to mono nothing is left',
      powers: [],
      faults: ['the two sides are in opposite polarity'],
    }
    const text = words(await html(LeadUse, { use }))
    expect(text).toContain('right receives the signal inverted, −6.2 dB')
    expect(text).toContain('the two sides are in opposite polarity')
    expect(text).not.toContain('wired correctly')
    expect(words(await html(LeadUse, { use: { ...use, faults: [] } }))).toContain('wired correctly')
  })
})
