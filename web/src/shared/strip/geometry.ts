/**
 * Where the strip's lines run. Pure drawing: weights and prices come computed; numbers here are pixels.
 * "Along" is the way the steps go, "across" the way thickness and price are drawn.
 */

export type Peel = { material: string; name: string; weight: number; gain: boolean }
export type Step = { weightIn: number; weightOut: number; price: number | null; peels: Peel[] }
export type Frame = {
  /** Pixels of one step. */
  pitch: number
  /** Pixels of the heaviest weight. */
  thickness: number
  /** Pixels of the climb, and where its foot is; a price grows from the foot by `climb` at the most. */
  climb: number
  foot: number
  /** The price at full climb. */
  topPrice: number
  /** Pixels over which a step's change takes place. */
  ease: number
  /** Least pixels between two peel labels. */
  labelGap: number
  /** Steps run down the page instead of across it. */
  down: boolean
}
export type Point = { x: number; y: number }
export type PeelDrawing = { path: string; label: Point; peel: Peel }
export type StepDrawing = { ribbon: string; peels: PeelDrawing[]; gain: string | null; price: Point | null }

type At = (along: number, across: number) => string

function pen(down: boolean): At {
  const round = (value: number): number => Math.round(value * 10) / 10
  return (along, across) => (down ? `${round(across)} ${round(along)}` : `${round(along)} ${round(across)}`)
}

const point = (frame: Frame, along: number, across: number): Point =>
  frame.down ? { x: across, y: along } : { x: along, y: across }

/** Pixels per unit of weight. */
export function weightScale(steps: Step[], frame: Frame): number {
  const heaviest = Math.max(...steps.flatMap((step) => [step.weightIn, step.weightOut]))
  return heaviest > 0 ? frame.thickness / heaviest : 0
}

export function drawSteps(steps: Step[], frame: Frame): StepDrawing[] {
  const scale = weightScale(steps, frame)
  return steps.map((step, index) => {
    const start = index * frame.pitch
    const [thickIn, thickOut] = [step.weightIn * scale, step.weightOut * scale]
    return {
      ribbon: drawRibbon(start, thickIn, thickOut, frame),
      peels: drawPeels(step, start, scale, frame),
      gain: thickOut > thickIn ? drawGain(start, thickIn, thickOut, frame) : null,
      price: step.price === null ? null : point(frame, start + frame.pitch, priceAcross(step.price, frame)),
    }
  })
}

function drawRibbon(start: number, thickIn: number, thickOut: number, frame: Frame): string {
  const at = pen(frame.down)
  const [end, eased, half] = [start + frame.pitch, start + frame.ease, start + frame.ease / 2]
  return [
    `M${at(start, 0)}L${at(end, 0)}L${at(end, thickOut)}L${at(eased, thickOut)}`,
    `C${at(half, thickOut)} ${at(half, thickIn)} ${at(start, thickIn)}Z`,
  ].join('')
}

/** What came on: the wedge by which the ribbon grows. */
function drawGain(start: number, thickIn: number, thickOut: number, frame: Frame): string {
  const at = pen(frame.down)
  const [eased, half] = [start + frame.ease, start + frame.ease / 2]
  return [
    `M${at(start, thickIn)}C${at(half, thickIn)} ${at(half, thickOut)} ${at(eased, thickOut)}`,
    `L${at(start + frame.pitch, thickOut)}L${at(start + frame.pitch, thickIn)}Z`,
  ].join('')
}

/** Bands that leave between the thickness after and before, and come to rest below one another. */
function drawPeels(step: Step, start: number, scale: number, frame: Frame): PeelDrawing[] {
  const at = pen(frame.down)
  const thickOut = step.weightOut * scale
  const [end, half] = [start + frame.ease + 8, start + (frame.ease + 8) / 2]
  let from = thickOut
  let rest = thickOut
  return step.peels.map((peel) => {
    const thick = peel.gain ? 0 : Math.max(peel.weight * scale, 1.4)
    const middle = Math.max(rest + frame.labelGap, rest + thick / 2 + 8)
    const [upper, lower] = [middle - thick / 2, middle + thick / 2]
    const path = peel.gain
      ? ''
      : [
          `M${at(start, from)}C${at(half, from)} ${at(half, upper)} ${at(end, upper)}`,
          `L${at(end, lower)}C${at(half, lower)} ${at(half, from + thick)} ${at(start, from + thick)}Z`,
        ].join('')
    from += thick
    rest = Math.max(middle, lower - frame.labelGap / 2)
    return { path, label: point(frame, end + 5, middle), peel }
  })
}

/** How far across the lowest peel label comes, so that room can be kept for it. */
export function lowestLabel(drawings: StepDrawing[], frame: Frame): number {
  const labels = drawings.flatMap((drawing) => drawing.peels.map((peel) => peel.label))
  return Math.max(0, ...labels.map((label) => (frame.down ? label.x : label.y)))
}

/** Where a price lies: across the page a dearer pound lies higher, down the page further right. */
export function priceAcross(price: number, frame: Frame): number {
  const share = frame.topPrice > 0 ? price / frame.topPrice : 0
  return frame.down ? frame.foot + share * frame.climb : frame.foot - share * frame.climb
}

/** The line of the price of a pound, and the area below it. */
export function drawClimb(steps: Step[], frame: Frame): { line: string; area: string } {
  const at = pen(frame.down)
  let line = ''
  let last: number | null = null
  let end = 0
  steps.forEach((step, index) => {
    if (step.price === null) return
    const start = index * frame.pitch
    const across = priceAcross(step.price, frame)
    line += last === null ? `M${at(start, across)}` : `L${at(start, last)}L${at(start + frame.ease, across)}`
    end = start + frame.pitch
    line += `L${at(end, across)}`
    last = across
  })
  return { line, area: line && `${line}L${at(end, frame.foot)}L${at(0, frame.foot)}Z` }
}

export type Range = { low: number; middle: number; high: number }

/** Prices to come, from the last one on: the pale band of the range, and the line of the middle. */
export function drawFan(from: number, first: number, ranges: Range[], frame: Frame) {
  const at = pen(frame.down)
  const edge = (which: keyof Range): string[] => {
    let last = priceAcross(from, frame)
    return ranges.flatMap((range, index) => {
      const start = (first + index) * frame.pitch
      const across = priceAcross(range[which], frame)
      const points = [at(start, last), at(start + frame.ease, across), at(start + frame.pitch, across)]
      last = across
      return points
    })
  }
  const [low, high] = [edge('low'), edge('high')]
  return {
    area: low.length ? `M${[...high, ...low.reverse()].join('L')}Z` : '',
    line: low.length ? `M${edge('middle').join('L')}` : '',
  }
}
