/**
 * What stands behind each figure that is shown: what it says, how it comes about in a sentence, the constants it leans on,
 * and where it is published. The long form is in docs/models.md.
 */
import type { Mark } from '../house/index.ts'

export interface EstimateText {
  readonly mark: Mark
  readonly name: string
  /** What it says, to somebody at the chair. */
  readonly what: string
  readonly formula: string
  /** Of the register, `area.key`. */
  readonly constants: readonly string[]
  readonly source?: string
}

const estimate = (
  mark: Mark,
  name: string,
  what: string,
  formula: string,
  constants: readonly string[],
  source?: string,
): EstimateText => ({ mark, name, what, formula, constants, ...(source && { source }) })

const DIRECTIONS = 'Mardia and Jupp, Directional Statistics (2000), noted from memory'

export const ESTIMATES = {
  'grain-within': estimate(
    'H',
    'Within so many degrees',
    'Nine tenths of the hair in this zone lie within this angle of the direction that is told.',
    'The spread of the readings, widened by the reading error of whoever read and by the distance to the nearest reading.',
    ['field.readerDeg', 'field.knownReadings', 'field.reachMm'],
    DIRECTIONS,
  ),
  'grain-even': estimate(
    'H',
    'Even, or turns here',
    'Whether one direction serves for the whole zone. Where hair turns, read it in parts and plan it in parts.',
    'The mean resultant length R of the field over the zone: 1 when all hair runs one way, 0 when every way is alike.',
    ['reading.readInPartsBelow'],
    DIRECTIONS,
  ),
  'grain-guess': estimate(
    'H',
    'A starting guess',
    'Nobody has read the hair here. The guess is how it grows on most heads; it gives way to readings near it.',
    'A weak direction for each zone, which fades as readings come near and is dropped when they contradict it.',
    ['field.weightGuess', 'field.guessUntil', 'field.guessReadings'],
  ),
  'grain-test': estimate(
    'H',
    'The guided test',
    'Each answer makes some directions likelier; strokes are chosen that tell most. It ends when the direction is sure.',
    'Bayes over directions in even steps; an answer is wrong with a fixed chance, softer near across.',
    ['test.wrongAnswer', 'test.sureWithinDeg', 'test.sureShare', 'test.mostAnswers'],
    'Bayes’ rule; the choice of the next stroke by expected entropy (Lindley 1956), from memory',
  ),
  'plan-any': estimate(
    'H',
    'Any zone reddens',
    'How likely at least one zone is at grade 2 or more within two days.',
    'One minus the chance that every zone stays calm; zones of one face share a part of their luck.',
    ['skin.spread', 'skin.visitSpread', 'skin.readWithinHours'],
  ),
  'plan-zone': estimate(
    'H',
    'A zone reddens',
    'How likely this zone is at grade 2 or more within two days.',
    'Expected redness is what the client’s skin answered per unit of load, times the load; the odds count how widely answers scatter.',
    ['skin.priorShape', 'skin.averageSkin', 'skin.spread', 'skin.rednessLimit'],
  ),
  'plan-bumps': estimate(
    'H',
    'Many bumps',
    'How likely the worst zone has many bumps between the second day and two weeks after.',
    'A rate of bumps for the skin and its curl, learned from counted services, times the load.',
    ['bumps.plain', 'bumps.prone', 'bumps.tightCurl', 'bumps.moderateFrom'],
    'Grades of severity after a published count; see docs/models.md, M7',
  ),
  'plan-smooth': estimate(
    'H',
    'Smooth for about',
    'Hours until stubble is felt again where the plan was closest.',
    'What a pass leaves above and below the skin, over the rate at which this hair grows.',
    ['closeness.exitAngleDeg', 'closeness.standOffMm', 'growth.feltMm'],
  ),
  'plan-minutes': estimate(
    'H',
    'Minutes',
    'How long it takes, with all that is not stroking.',
    'Strokes over the worker’s pace, learned from past services, plus turns, tools, towels and looking again.',
    ['time.strokesPerSecond', 'time.usedWidth', 'time.stanceSeconds', 'time.towelMin'],
  ),
  'plan-load': estimate(
    'H',
    'Load',
    'How much the skin is worked: 1 is one fresh stroke with the grain on wet skin.',
    'Sum over strokes of the factors for grain, blade, wetness, wear and tug.',
    ['load.withGrain', 'load.acrossGrain', 'load.againstGrain', 'load.goneOverAgain'],
  ),
  'plan-buys': estimate(
    'H',
    'What it buys',
    'Hours of smoothness that a stroke or a pass adds.',
    'The difference in length left, over the rate of growth.',
    ['closeness.pressedFlat', 'closeness.missMedium'],
  ),
  'plan-cost': estimate(
    'H',
    'Cost',
    'What is used up by this service, at the house’s own prices.',
    'Blades by their count, plus what lies ready.',
    ['blades.priceShavette', 'kit.towelCost', 'kit.latherCost', 'kit.balmCost'],
  ),
  'fresh-blade': estimate(
    'C',
    'A fresh blade',
    'One blade for one client; used ones go straight into the sharps box. Local codes come first.',
    'A rule, not a reckoning.',
    [],
  ),
  fading: estimate(
    'H',
    'Redness fades',
    'Grades a day by which redness goes back on this skin.',
    'A mean over later looks, leaning on the studio until there are enough.',
    ['skin.perDay'],
  ),
  'skin-learned': estimate(
    'H',
    'Learned of this skin',
    'Grades of redness per unit of load. It starts from what was told at Ask and leans on other zones and clients.',
    'A Gamma prior, moved by each answered service; old services count for less.',
    ['skin.priorShape', 'skin.betweenClients', 'skin.betweenZones', 'skin.halfLife'],
  ),
  growth: estimate(
    'P',
    'Growth',
    'Millimetres a day, from published means and then from this client’s own readings.',
    'A normal mean over zones and readings, each with its own error; what was only seen as a day is a day, not a length.',
    [
      'growth.beardChin',
      'growth.beardCheek',
      'growth.scalp',
      'growth.measuredSdMm',
      'growth.thresholdSdMm',
    ],
    'Pecoraro and Astore (1990) and the sources in docs/models.md, M10',
  ),
  'bump-grade': estimate(
    'P',
    'How many is much',
    'From a count of bumps and pustules: mild, moderate or severe.',
    'Mild below the first count, moderate up to the second, severe above it.',
    ['bumps.moderateFrom', 'bumps.severeOver'],
    'Perry, Cook-Bolden, Rahman and others (2002), noted from memory',
  ),
  'bump-trend': estimate(
    'P',
    'Whether bumps rise',
    'Said only when counts rise or fall farther than the same visits in another order would; falsely so for about 1 client in 20 over 24 visits.',
    'A moving average in which the newest visit has its weight and older ones fade (EWMA), against where it stays for the same counts put in other orders.',
    ['changes.trendLambda', 'changes.baselineVisits'],
    'Roberts (1959); NIST/SEMATECH e-Handbook 6.3.2.4',
  ),
  'read-length': estimate(
    'H',
    'Length to read at',
    'Below it the grain is hard to feel.',
    'A length of the house.',
    ['growth.readMm'],
  ),
  'wax-length': estimate(
    'C',
    'Length to wax at',
    'A quarter of an inch holds; shorter hair breaks.',
    'A length of common practice.',
    ['growth.waxMm'],
  ),
  'next-days': estimate(
    'H',
    'Good days',
    'From when the skin has most likely settled until hair is longer than this client likes.',
    'Days on which skin is clear with the odds asked for and length lies in the window; closed days are left out.',
    ['interval.clearEnough', 'interval.settleDays', 'interval.leastWindow'],
  ),
  'book-length': estimate(
    'H',
    'How long it takes',
    'What such a visit really takes, with 80 %: of this client, by this worker.',
    'What visits took over their plans is log-normal with effects of house, service, worker and client, all learned, shrunk towards none; what the next one takes has Student’s t around it.',
    ['book.scatter', 'book.workerSpread', 'book.clientSpread', 'book.waitOdds'],
    'DeGroot, Optimal Statistical Decisions (1970), noted from memory',
  ),
  'book-proposal': estimate(
    'H',
    'How good the proposal is',
    'What is proposed is worth at most so much less than any way of giving these clients hours.',
    'The worth of an hour is the odds that hair is seen and skin is clear, less lateness, another worker or hour than usual, and gaps that nobody fits into. The bound is Lagrange’s; where little is left open an exact solver has the last word.',
    ['book.latePerDay', 'book.otherWorker', 'book.hourOff', 'book.deadGap'],
    'Fisher, The Lagrangian Relaxation Method for Solving Integer Programming Problems (1981), noted from memory',
  ),
  'book-missed': estimate(
    'H',
    'Did not come',
    'How often this client does not come, with 80 %. It decides nothing: it is told to the house alone.',
    'A beta-binomial belief that begins at the house’s usual share, as firm as a few visits.',
    ['book.missedShare', 'book.missedVisits'],
  ),
  'next-odds': estimate(
    'H',
    'Skin clear by then',
    'How likely nothing of the last service is to be seen on that day.',
    'What was forecast and what was looked at since, in one belief; it fades by a rate that is learned.',
    ['interval.clearByDays', 'skin.perDay'],
  ),
  'home-load': estimate(
    'H',
    'Load of work at home',
    'What a home razor does to the skin when nobody knows which way the hair grows.',
    'The load of a stroke, mean over every angle to the growth from with to against, on damp skin with a used blade; half of the skin gone over once more.',
    ['load.homeAgain', 'load.homeWear', 'load.goneOverAgain', 'load.cartridgeAgainst'],
  ),
  'due-today': estimate(
    'H',
    'Due today',
    'Hair shows there with even odds or more, the skin is clear with the odds asked for, and the rhythm of the work has passed. What is nearly due is offered where it saves a visit.',
    'Odds of hair seen by now, of skin clear by now, and the window of that work; load a year is load times visits a year.',
    ['interval.shows', 'interval.nearlyShare', 'interval.lapsesDays', 'interval.clearEnough'],
  ),
  'line-fills': estimate(
    'H',
    'A line filled in',
    'When the hair that a moved line takes in is long enough to look filled, four times of five between these.',
    'Hair there grows from the last step on, at this client’s own pace; the slowest zone decides. How thick it stands is not measured: where it was found sparse, no date is told.',
    ['lines.filledMm', 'lines.stepMm'],
  ),
  products: estimate(
    'H',
    'What a product does to this skin',
    'Sting, dryness and bumps to expect, 0 to 10; the kindest stands first.',
    'From what it holds, more on reactive or dry skin; each look of this client after a visit on which it was used counts beside that. Several products at one visit share its looks: none of them is shown to be the cause.',
    ['products.looks'],
  ),
  quiet: estimate(
    'H',
    'The quiet hour',
    'The hour, one of each day of the window, at which the least of what the client does every week falls into the time that it is kept off.',
    'Hours of each habit within the clearances of such a service are added up; nobody is asked to come while they are at it. All hours count alike.',
    ['quiet.lookDays'],
  ),
  'area-edge': estimate(
    'H',
    'Where an area may end',
    'How much the hair beside an edge shows, of all that it could.',
    'By kind and density of the hair as told at Hair, less where it is grey, and by how hair stands out against the skin. Nothing is measured.',
    [],
  ),
  course: estimate(
    'H',
    'A beginner’s course',
    'Bumps that a session of a newcomer brings, four times of five between these.',
    'More at first, fewer with the sessions; the level is that of such skin, and of the sessions before. Days differ too. By simulation, where the course is unlike what is assumed, it still holds three times of four.',
    ['course.sessions', 'course.moreAtFirst', 'course.halfAfter'],
  ),
  'method-odds': estimate(
    'H',
    'Odds of a method',
    'How likely this skin reddens, or gets a bump, after this method in this place; the range holds the truth with 80 %.',
    'The method’s own tries, each at its load, by the same model as after a shave; before the first of them its level lies where the client’s other methods put it, as unsurely as methods differ. A place that two methods went over in one sitting counts for neither.',
    ['methods.methodsAlike', 'methods.bladeLoad', 'methods.guardedLoad', 'methods.waxLoad'],
  ),
  'method-year': estimate(
    'H',
    'A year of a method',
    'How often this place would be done, and on how many days no hair is felt.',
    'A cut is renewed when hair is seen; what comes out by its root, when hair is felt again, wax not before it is long enough. Minutes and what is used up are those of the place alone, without what goes before and after.',
    ['methods.bladeMin', 'methods.guardedMin', 'growth.waxMm'],
  ),
  'method-together': estimate(
    'H',
    'Two ways together',
    'How likely either of the two reddens this skin, or gives a bump; the range holds the truth with 80 % where the hair is as it was when they were tried.',
    'Each way’s own odds and rhythm; a day is smooth when neither sort of hair is felt. Growth of coarse hair that hormones bring, and what laser leaves, are house estimates, not learned from this client.',
    ['methods.hormonal', 'methods.laserLeft', 'methods.laserPace'],
  ),
  event: estimate(
    'H',
    'At the event',
    'How likely redness or visible hair is on the day that counts.',
    'The plan’s forecast, faded to that day, and growth until then.',
    ['event.rednessLimit', 'event.hairLimit'],
  ),
  towel: estimate(
    'H',
    'Towel warmth',
    'Reckoned until somebody reads it. Above 48 °C (118 °F) skin is harmed: 45 °C (113 °F) is the most.',
    'Cooling toward the room from the warmth at the start (Newton), with a range.',
    ['towel.startC', 'towel.fastestMin', 'towel.slowestMin', 'towel.harmC'],
    'Newton’s law of cooling; burns after Moritz and Henriques (1947), from memory',
  ),
  pace: estimate(
    'H',
    'Pace',
    'Strokes a second of this worker.',
    'A mean over finished lanes, leaning on the house’s figure until there are many.',
    ['time.strokesPerSecond', 'time.leastLanes', 'time.services'],
  ),
  reader: estimate(
    'H',
    'Reading error',
    'How far apart this worker’s readings of one place lie.',
    'A spread over pairs of readings, leaning on the house’s figure until there are many.',
    ['field.readerDeg', 'field.readerReadings'],
  ),
} as const satisfies Record<string, EstimateText>

export type EstimateId = keyof typeof ESTIMATES

export const MARK_MEANS: Readonly<Record<Mark, string>> = {
  H: 'An estimate of this product. Your house can change it; it gives way to what is seen.',
  C: 'Common practice of the trade. Local codes and licensed practice come first.',
  P: 'Published; the source is named with the constant.',
}
