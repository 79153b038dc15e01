/**
 * Where the strip's lines run. Pure drawing: weights and prices come computed; numbers here are pixels.
 * "Along" is the way the steps go, "across" the way thickness and price are drawn.
 */

import { area, curveBumpX, curveBumpY, curveLinear, line } from 'd3-shape'

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

type Spot = { along: number; across: number }
/** A cut through a band: where it begins and ends across. */
type Cut = { along: number; from: number; to: number }

function drawLine(spots: Spot[], frame: Frame): string {
  const path = line<Spot>().digits(1)
  if (frame.down) path.x((spot) => spot.across).y((spot) => spot.along)
  else path.x((spot) => spot.along).y((spot) => spot.across)
  return path(spots) ?? ''
}

/** The band through `cuts`: eased from one to the next, or `straight`. */
function drawBand(cuts: Cut[], frame: Frame, straight = false): string {
  const path = area<Cut>().digits(1)
  const [along, from, to] = [(cut: Cut) => cut.along, (cut: Cut) => cut.from, (cut: Cut) => cut.to]
  if (frame.down) path.y(along).x0(from).x1(to)
  else path.x(along).y0(from).y1(to)
  path.curve(straight ? curveLinear : frame.down ? curveBumpY : curveBumpX)
  return path(cuts) ?? ''
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
  const cuts = [
    { along: start, from: 0, to: thickIn },
    { along: start + frame.ease, from: 0, to: thickOut },
    { along: start + frame.pitch, from: 0, to: thickOut },
  ]
  return drawBand(cuts, frame)
}

/** What came on: the wedge by which the ribbon grows. */
function drawGain(start: number, thickIn: number, thickOut: number, frame: Frame): string {
  const cuts = [
    { along: start, from: thickIn, to: thickIn },
    { along: start + frame.ease, from: thickIn, to: thickOut },
    { along: start + frame.pitch, from: thickIn, to: thickOut },
  ]
  return drawBand(cuts, frame)
}

/** Bands that leave between the thickness after and before, and come to rest below one another. */
function drawPeels(step: Step, start: number, scale: number, frame: Frame): PeelDrawing[] {
  const thickOut = step.weightOut * scale
  const end = start + frame.ease + 8
  let from = thickOut
  let rest = thickOut
  return step.peels.map((peel) => {
    const thick = peel.gain ? 0 : Math.max(peel.weight * scale, 1.4)
    const middle = Math.max(rest + frame.labelGap, rest + thick / 2 + 8)
    const [upper, lower] = [middle - thick / 2, middle + thick / 2]
    const cuts = [
      { along: start, from, to: from + thick },
      { along: end, from: upper, to: lower },
    ]
    const path = peel.gain ? '' : drawBand(cuts, frame)
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
  const spots: Spot[] = []
  steps.forEach((step, index) => {
    if (step.price === null) return
    const start = index * frame.pitch
    const across = priceAcross(step.price, frame)
    const last = spots.at(-1)
    if (last) spots.push({ along: start, across: last.across }, { along: start + frame.ease, across })
    else spots.push({ along: start, across })
    spots.push({ along: start + frame.pitch, across })
  })
  const cuts = spots.map(({ along, across }) => ({ along, from: frame.foot, to: across }))
  return { line: drawLine(spots, frame), area: drawBand(cuts, frame, true) }
}

export type Range = { low: number; middle: number; high: number }

/** Prices to come, from the last one on: the pale band of the range, and the line of the middle. */
export function drawFan(from: number, first: number, ranges: Range[], frame: Frame) {
  const edge = (which: keyof Range): Spot[] => {
    let last = priceAcross(from, frame)
    return ranges.flatMap((range, index) => {
      const start = (first + index) * frame.pitch
      const across = priceAcross(range[which], frame)
      const spots = [
        { along: start, across: last },
        { along: start + frame.ease, across },
        { along: start + frame.pitch, across },
      ]
      last = across
      return spots
    })
  }
  const high = edge('high')
  const cuts = edge('low').map(({ along, across }, index) => ({
    along,
    from: across,
    to: high[index]?.across ?? across,
  }))
  return { area: drawBand(cuts, frame, true), line: drawLine(edge('middle'), frame) }
}
